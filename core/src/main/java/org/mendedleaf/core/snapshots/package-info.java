/** Snapshots of protected folders: taking them, by hand and at set times, and what each of them alone holds. */
@org.jspecify.annotations.NullMarked
package org.mendedleaf.core.snapshots;
