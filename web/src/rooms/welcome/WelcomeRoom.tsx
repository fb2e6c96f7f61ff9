import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { kitchensQuery } from "../../api/kitchen";
import { KitchenForm } from "./KitchenForm";
import { SAY } from "../../words/say/welcome";

const Page = styled.main`
  max-width: 1280px;
  margin: 0 auto;
  padding: 14px 24px 30px;
  display: grid;
  gap: 12px;
  .title {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 26px;
    align-items: baseline;
    border-bottom: 5px double var(--hair-2);
    padding-bottom: 8px;
  }
  h1 {
    font-size: 44px;
  }
  .lead {
    font: 500 24px/1.35 var(--name);
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
      <div className="title">
        <h1>Brass Clock</h1>
        <p className="lead">{SAY.fromWhenDoWeEatTo}</p>
      </div>
      <KitchenForm />
      {others.length > 0 && (
        <p className="demo">
          {SAY.orLookRoundFirst}{" "}
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
