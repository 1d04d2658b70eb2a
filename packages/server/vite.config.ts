import { defineConfig } from 'vite';

/** One build for everything that runs on Node: the server, the demo's seeding, the simulated scale. Our packages go in, libraries stay out. */
export default defineConfig({
  ssr: { noExternal: [/^@zabrik\//] },
  build: {
    ssr: true,
    target: 'node20',
    emptyOutDir: true,
    sourcemap: true,
    rolldownOptions: {
      input: {
        main: 'src/main.ts',
        seed: 'src/demo/seedMain.ts',
        scale: '../devices/src/scaleMain.ts',
        serial: '../devices/src/serialMain.ts',
        houseFile: 'src/house/houseFileMain.ts',
        backup: 'src/backup/backupMain.ts',
        doctor: 'src/doctor/doctorMain.ts',
        thread: 'src/threads/thread.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
});
