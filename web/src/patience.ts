import { configure } from '@testing-library/react';

// How long a spec waits for a line to appear before it gives up; the usual second is too short
// for a busy machine.
configure({ asyncUtilTimeout: 15_000 });
