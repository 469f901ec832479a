/**
 * What takes how much space, rules and what they would do, holds, removed files, and what waits before it is gone for good.
 * Start reading at {@link RetentionModel}.
 */
package org.mendedleaf.desktop.retention;
