/** How each kind of system is spoken to: over HTTP, with retries that do no harm, each client one class. */
package org.mendedleaf.core.systems.wire;
