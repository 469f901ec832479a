package org.mendedleaf.core.intake;

import java.util.Optional;
import org.mendedleaf.core.document.Documents;

/** Tells which kind of Office Open XML document (ISO/IEC 29500) a ZIP file is, by the folder its main part is in. */
final class OfficeXml {

    private static final String PREFIX = "application/vnd.openxmlformats-officedocument.";
    private static final int MEMBERS_MOST = 200;

    private OfficeXml() {}

    static Optional<String> mediaType(byte[] content) {
        boolean types = false;
        String kind = "";
        for (String name : Documents.memberNames(content, MEMBERS_MOST)) {
            types |= name.equals("[Content_Types].xml");
            kind = switch (name) {
                case "word/document.xml" -> "wordprocessingml.document";
                case "xl/workbook.xml" -> "spreadsheetml.sheet";
                case "ppt/presentation.xml" -> "presentationml.presentation";
                default -> kind;
            };
            if (types && !kind.isEmpty()) {
                return Optional.of(PREFIX + kind);
            }
        }
        return Optional.empty();
    }
}
