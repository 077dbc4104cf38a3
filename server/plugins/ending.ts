import { services } from '../services';

/** For so many milliseconds an ending process waits for what is under way. */
const LAST_WORDS = 1_500;

/** Has the web process end soon when it is told to, whatever its press is at. */
export default (): void => {
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      setTimeout(() => process.exit(0), LAST_WORDS).unref();
      void services().then(({ press }) => press.close());
    });
  }
};
