// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { held, served } from "../../testing/served";
import { AS_IT_IS, useWhatIf } from "./useWhatIf";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
interface Body {
  room_k: number;
}
type Told = { status?: number; body: unknown };

/** A server that answers when it is told to. */
function slow() {
  const turns: ReturnType<typeof held<Told>>[] = [];
  const asked = served(() => {
    const turn = held<Told>();
    turns.push(turn);
    return turn.promise;
  });
  const room = () => asked.map((a) => (a.body as Body).room_k);
  const answer = async (i: number, told: Told = { body: { name: `answer ${i}` } }) => {
    await waitFor(() => expect(turns.length).toBeGreaterThan(i));
    await act(async () => {
      turns[i]!.give(told);
      await new Promise((done) => setTimeout(done, 5));
    });
  };
  return { asked, room, answer };
}

it("asks one question at a time, and of those pressed meanwhile only the newest", async () => {
  const { room, answer } = slow();
  const { result } = renderHook(() => useWhatIf(4, 1));
  for (const k of [1, 2, 3]) act(() => result.current.change({ room_k: k }));
  expect(result.current.tried).toEqual({ ...AS_IT_IS, room_k: 3 });
  await waitFor(() => expect(room()).toEqual([1]));
  await answer(0);
  await waitFor(() => expect(room()).toEqual([1, 3]));
  await answer(1);
  expect(result.current.answer).toEqual({ name: "answer 1" });
});

it("drops the answer to what was cleared, or to an older plan of the bake", async () => {
  const { answer } = slow();
  const { result, rerender } = renderHook(({ revision }) => useWhatIf(4, revision), { initialProps: { revision: 1 } });
  act(() => result.current.change({ room_k: 1 }));
  rerender({ revision: 2 });
  expect(result.current.tried).toBeNull();
  await answer(0);
  expect(result.current.answer).toBeNull();
  act(() => result.current.change({ no_cold: true }));
  await answer(1);
  expect(result.current.answer).toEqual({ name: "answer 1" });
  act(() => result.current.clear());
  expect([result.current.tried, result.current.answer]).toEqual([null, null]);
});

it("tells why a question could not be answered, until one is", async () => {
  const { answer } = slow();
  const { result } = renderHook(() => useWhatIf(4, 1));
  act(() => result.current.change({ room_k: 40 }));
  await answer(0, { status: 422, body: { detail: "A room of 61 C is past what can be computed." } });
  expect(result.current.fault).toBe("A room of 61 C is past what can be computed.");
  act(() => result.current.change({ room_k: 2 }));
  await answer(1);
  expect(result.current.fault).toBeNull();
});
