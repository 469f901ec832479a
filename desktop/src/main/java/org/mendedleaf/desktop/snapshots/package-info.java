/**
 * Moments with a name: taken by hand and at set times, and what each alone holds. Start reading at {@link SnapshotsModel}.
 */
package org.mendedleaf.desktop.snapshots;
