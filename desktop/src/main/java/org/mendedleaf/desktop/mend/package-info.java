/**
 * What looks wrong, why, the last good version, and one action that mends it; above that what is late, away or full. Start
 * reading at {@link MendModel}.
 */
package org.mendedleaf.desktop.mend;
