/**
 * A file's line through time, and the catalogue that holds all of them: values ({@link Line}, {@link Version}, {@link Place}),
 * the database behind them, its changes ({@link Op}, {@link ChangeLog}), stores and queries. Every change goes through {@link
 * WriteSession} into the packs too, so that {@link Rebuild} can make the catalogue from them. It calls neither capture nor
 * recovery. Start reading at {@link OpenVault}.
 */
package org.mendedleaf.core.line;
