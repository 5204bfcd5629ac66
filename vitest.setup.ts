import fc from 'fast-check';

// The same plans at random in every run, so that a failure is the change's and not the day's; the soak takes another seed each time.
fc.configureGlobal({ seed: Number(process.env.FC_SEED ?? 1) });
