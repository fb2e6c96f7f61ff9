import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { Problem } from "../../api/client";
import { cookName, setCookName } from "../../api/cook";
import { useSignIn } from "../../api/session";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { SAY } from "../../words/say/devices";

const Page = styled.main`
  min-height: 100%;
  display: grid;
  place-content: center;
  padding: 24px;
  form {
    width: min(560px, calc(100vw - 48px));
    display: grid;
    gap: 18px;
    justify-items: start;
  }
  h1 {
    font-size: 44px;
    border-bottom: 5px double var(--hair-2);
    padding-bottom: 8px;
    width: 100%;
  }
  .lead {
    font: 500 24px/1.35 var(--name);
  }
`;

/** A path of this application alone: what a link hands on leads nowhere else. */
const nextOf = (text: string | null): string => (text && /^\/(?!\/)/.test(text) && !text.includes("\\") ? text : "/");

/** Sign this device in by the passcode of the house. */
export function SignInRoom() {
  const [params] = useSearchParams();
  const [passcode, setPasscode] = useState("");
  const [name, setName] = useState(cookName() ?? "");
  const signIn = useSignIn();
  const ready = passcode !== "" && name.trim() !== "";
  const go = (e: FormEvent) => {
    e.preventDefault();
    if (!ready) return;
    signIn.mutate(
      { passcode, name: name.trim() },
      {
        onSuccess: () => {
          setCookName(name);
          location.replace(nextOf(params.get("next")));
        },
      },
    );
  };
  const fault = signIn.error;
  return (
    <Page>
      <Form onSubmit={go} validationBehavior="aria">
        <h1>Brass Clock</h1>
        <p className="lead">{SAY.thisKitchenAsksForItsPasscode}</p>
        <Field
          label="Passcode"
          value={passcode}
          width="100%"
          secret
          big
          onType={setPasscode}
          onCommit={setPasscode}
          fault={fault instanceof Problem && fault.status === 401 ? fault.message : null}
        />
        <Field label={SAY.calledBesideTaps} value={name} width="100%" onType={setName} onCommit={setName} />
        {fault && !(fault instanceof Problem && fault.status === 401) && <Plate role="alert">{fault.message}</Plate>}
        <Button type="submit" data-kind="brass" isDisabled={!ready || signIn.isPending}>
          {signIn.isPending ? "Looking…" : "Sign in"}
        </Button>
        <p className="quiet">{SAY.signedInStaysSo}</p>
        {location.protocol === "http:" && <p className="quiet">{SAY.notEncrypted}</p>}
      </Form>
    </Page>
  );
}
