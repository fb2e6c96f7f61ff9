/** Imports run one way: main -> rooms|leaves -> frame -> alarms|controls|instruments -> api -> words -> theme. */
const order = ["theme", "words", "api", "instruments", "controls", "alarms", "frame", "leaves", "rooms"];
const forbidden = order.map((name, i) => ({
  name: `${name}-looks-down`,
  severity: "error",
  comment: `${name} may import only what stands before it: ${order.slice(0, i).join(", ") || "nothing"}`,
  from: { path: `^src/${name}/` },
  to: { path: "^src/", pathNot: [`^src/${name}/`, "^src/testing/", ...order.slice(0, i).map((n) => `^src/${n}/`)] },
}));
forbidden.push(
  { name: "instruments-draw-only", severity: "error", from: { path: "^src/instruments/" }, to: { path: "^src/api/" } },
  { name: "only-tests-use-testing", severity: "error", from: { path: "^src/", pathNot: ["\\.test\\.tsx?$", "^src/testing/"] }, to: { path: "^src/testing/" } },
  { name: "leaves-stand-alone", severity: "error", from: { path: "^src/leaves/([^/]+)/" }, to: { path: "^src/leaves/", pathNot: "^src/leaves/$1/" } },
  { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
);
module.exports = {
  forbidden,
  options: { doNotFollow: { path: "node_modules" }, tsConfig: { fileName: "tsconfig.json" }, tsPreCompilationDeps: true },
};
