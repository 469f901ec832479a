/**
 * What is kept, for how long, and what that costs: rules, verdicts, holds, space, what-if, forecast; letting go with a grace
 * time, and giving the space back. Deciding is pure; {@link org.mendedleaf.core.retention.LettingGo} and {@link
 * org.mendedleaf.core.retention.Reclaim} carry out.
 */
@NullMarked
package org.mendedleaf.core.retention;

import org.jspecify.annotations.NullMarked;
