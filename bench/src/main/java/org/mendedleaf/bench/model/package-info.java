/**
 * Random commands beside a model of what was promised: each answer, and each file afterwards, is compared with it. Start
 * reading at {@link ModelRun}.
 */
package org.mendedleaf.bench.model;
