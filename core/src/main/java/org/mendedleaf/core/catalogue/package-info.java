/**
 * The database of a vault: its tables, the changes to them ({@link Op}, {@link ChangeLog}), and a store or a query for each
 * topic. Every change goes through {@link WriteSession} into the packs too, so that the catalogue can be made again from them;
 * every question goes through {@link Reading}. Only this package and {@code check} know SQL. It calls neither capture nor
 * recovery, and no rules. Start reading at {@link OpenVault}.
 */
package org.mendedleaf.core.catalogue;
