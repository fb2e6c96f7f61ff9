import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { kitchensQuery } from "../../api/kitchen";
import { KitchenForm } from "./KitchenForm";

const Page = styled.main`
  max-width: 900px;
  margin: 0 auto;
  padding: 40px 24px 80px;
  display: grid;
  gap: 20px;
  h1 {
    font-size: 44px;
  }
  .lead {
    font: 500 24px/1.35 var(--name);
    max-width: 40ch;
  }
  .demo {
    border-top: 2px solid var(--hair-2);
    padding-top: 16px;
  }
  .demo a {
    color: var(--brass);
    font-weight: 650;
    border-bottom: 2px solid var(--brass);
    padding: 10px 0 4px;
    display: inline-block;
  }
`;

export function WelcomeRoom() {
  const kitchens = useQuery(kitchensQuery());
  const others = kitchens.data ?? [];
  return (
    <Page>
      <h1>Brass Clock</h1>
      <p className="lead">From when do we eat, to flip it now. Four answers, and your kitchen is ready.</p>
      <KitchenForm />
      {others.length > 0 && (
        <p className="demo">
          Or go back to{" "}
          {others.map((k) => (
            <span key={k.id}>
              <Link to={`/k/${k.id}/bench`}>
                {k.name}
                {k.demo ? ", the demo" : ""}
              </Link>{" "}
            </span>
          ))}
        </p>
      )}
    </Page>
  );
}
