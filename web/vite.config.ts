import optimizeLocales from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** The two faces everything is set in come with the page, and not after it. */
const preloadFonts: Plugin = {
  name: 'preload-fonts',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((file) => /-latin-(wght|wdth)-normal.*\.woff2$/.test(file))
        .map((file) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: true, href: `/${file}` },
          injectTo: 'head' as const,
        })),
  },
};

export default defineConfig({
  // Tolva speaks English: of the components' own words the others are left out.
  plugins: [react(), { ...optimizeLocales.vite({ locales: ['en-US'] }), enforce: 'pre' }, preloadFonts],
  build: {
    // Fonts stay files of their own: the content security policy lets no data address in for them.
    assetsInlineLimit: 0,
    target: 'es2022',
    manifest: true,
    // Every part names those it may load: seven signs tell parts and builds apart, and are less to send than names. Which is
    // which stands in the manifest.
    rollupOptions: { output: { chunkFileNames: 'assets/[hash:7].js' } },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8465' } },
});
