import fc from 'fast-check';

/** Property tests are the same in every run; FC_SEED tries others. A seed that fails once becomes a test of its own. */
fc.configureGlobal({ seed: Number(process.env['FC_SEED'] ?? 20) });
