import { defineConfig } from 'vite';

/** The session's machine as a bundle of its own, for the tests that run it by itself in a browser. */
export default defineConfig({
  build: {
    outDir: 'dist-machine',
    target: 'es2022',
    copyPublicDir: false,
    minify: false,
    lib: { entry: 'src/session/machine/index.ts', formats: ['iife'], name: 'Machine', fileName: () => 'machine.js' },
  },
});
