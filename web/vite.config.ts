import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  build: { chunkSizeWarningLimit: 1200 },
  server: { proxy: { '/api': 'http://127.0.0.1:7420' } },
  // A test that waits for ever is a fault; one that is slow beside the browser's is none.
  test: { environment: 'jsdom', testTimeout: 60_000 },
});
