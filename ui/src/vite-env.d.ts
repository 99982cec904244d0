/// <reference types="vite/client" />

/** The runtime that comes with Go's compiler: it is built beside the core (see the Makefile). */
declare module "*/wasm_exec.js";
