/**
 * The forms in which something is written for others: a table as CSV, a page as HTML. It knows text and numbers, and nothing
 * of what they are about; what stands in a report is decided by the report itself. Start at {@link
 * org.mendedleaf.core.report.CsvTable}.
 */
package org.mendedleaf.core.report;
