import { configure } from '@testing-library/react';

// What a test waits for comes as soon as it can; a machine ten times slower is no reason to fail it.
configure({ asyncUtilTimeout: 300_000 });
