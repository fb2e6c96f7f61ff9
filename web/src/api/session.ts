import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";

export type Device = Schemas["DeviceRead"];

/** Whether a passcode is asked for, and as what this device is signed in. */
export const sessionQuery = () =>
  queryOptions({ queryKey: ["session"], queryFn: () => take(client.GET("/api/session")), staleTime: 60_000 });

/** Sign this device in; the answer of a wrong passcode is a Problem that says how long to wait. */
export const useSignIn = () =>
  useMutation({ mutationFn: (body: Schemas["SignIn"]) => take(client.POST("/api/session", { body })) });

export const devicesQuery = () =>
  queryOptions({
    queryKey: ["devices"],
    queryFn: async () => (await take(client.GET("/api/devices"))).devices,
    refetchInterval: 30_000,
  });

export function useDevices() {
  const cache = useQueryClient();
  const onSuccess = () =>
    Promise.all(["devices", "instruments", "bench"].map((key) => cache.invalidateQueries({ queryKey: [key] })));
  return {
    forget: useMutation({
      mutationFn: (id: number) => take(client.DELETE("/api/devices/{device_id}", path({ device_id: id }))),
      onSuccess,
    }),
    invite: useMutation({
      mutationFn: (kitchen: number) =>
        take(client.POST("/api/devices/guest", { body: { kitchen_id: kitchen, name: "Guests" } })),
      onSuccess,
    }),
    addInstrument: useMutation({
      mutationFn: (body: { kitchen_id: number; name: string }) =>
        take(client.POST("/api/devices/instrument", { body })),
      onSuccess,
    }),
    signOut: useMutation({ mutationFn: () => take(client.DELETE("/api/session")) }),
  };
}

/** What a guest's link shows; the link holds its token after the #, so that no server on the way keeps it. */
export const guestQuery = (token: string) =>
  queryOptions({
    queryKey: ["guest", token],
    queryFn: () => take(client.GET("/api/guest/{token}", path({ token }))),
    refetchInterval: 15_000,
    retry: false,
  });
