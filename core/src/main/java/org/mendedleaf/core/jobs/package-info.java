/**
 * Long work: how far it is, how it is stopped, and duties that go on in the background and are tried again when they fail. It
 * knows nothing of what is done. Start reading at {@link Supervisor}.
 */
package org.mendedleaf.core.jobs;
