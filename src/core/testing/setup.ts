/** One seed for every property test, so that a run can be repeated; FC_SEED looks for new counterexamples. */
import fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env['FC_SEED'] ?? 20261123) });
