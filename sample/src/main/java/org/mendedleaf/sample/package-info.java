/**
 * The sample office: a cider press with ninety days of history, made the same each time, whose today is one fixed day. Its
 * mishaps are in {@link Mishaps}. Start reading at {@link Office}.
 */
package org.mendedleaf.sample;
