/**
 * Moments: as the catalogue counts them ({@link Moment}) and as people type them ({@link MomentText}). It knows nothing of
 * files. Start reading at {@link MomentText}.
 */
package org.mendedleaf.core.time;
