/** A worker that only ticks: timers in a worker are not slowed when the page is in the background. */
setInterval(() => postMessage(0), 250);
