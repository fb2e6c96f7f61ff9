import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";

export type Backup = Schemas["BackupRead"];
const BACK_MS = 700;
const LONGEST_MS = 120_000;

export const backupsQuery = () =>
  queryOptions({ queryKey: ["backups"], queryFn: () => take(client.GET("/api/backups")) });

/** Where a backup's file is fetched. */
export const fileOf = (name: string): string => `/api/backups/${encodeURIComponent(name)}/file`;

/** Resolves when the server answers again after a restore. */
async function answersAgain(): Promise<void> {
  const until = performance.now() + LONGEST_MS;
  await new Promise((done) => setTimeout(done, 2 * BACK_MS));
  for (;;) {
    try {
      await take(client.GET("/api/health"));
      return;
    } catch (fault) {
      if (performance.now() > until) throw fault;
    }
    await new Promise((done) => setTimeout(done, BACK_MS));
  }
}

export function useBackups() {
  const cache = useQueryClient();
  const onSuccess = () => cache.invalidateQueries({ queryKey: ["backups"] });
  return {
    make: useMutation({ mutationFn: () => take(client.POST("/api/backups")), onSuccess }),
    check: useMutation({
      mutationFn: (name: string) => take(client.POST("/api/backups/{name}/check", path({ name }))),
    }),
    /** A backup of another machine, as its file. */
    bring: useMutation({
      mutationFn: async (file: File) => {
        const answer = client.PUT("/api/backups", {
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/vnd.sqlite3" },
        });
        return take(answer);
      },
      onSuccess,
    }),
    /** Put one in place and wait until the server is back; what was on screen is of the data before. */
    restore: useMutation({
      mutationFn: async (name: string) => {
        const told = await take(client.POST("/api/backups/{name}/restore", path({ name })));
        await answersAgain();
        return told;
      },
      onSuccess: () => location.assign("/"),
    }),
  };
}
