"""Rise: the forecast of a dough, its starter, what-ifs, rescues."""
