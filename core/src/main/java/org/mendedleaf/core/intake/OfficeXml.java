package org.mendedleaf.core.intake;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;

/** Tells which kind of Office Open XML document (ISO/IEC 29500) a ZIP file is, by the folder its main part is in. */
final class OfficeXml {

    private static final String PREFIX = "application/vnd.openxmlformats-officedocument.";
    private static final int MEMBERS_MOST = 200;

    private OfficeXml() {}

    static Optional<String> mediaType(byte[] content) {
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            boolean types = false;
            String kind = "";
            int seen = 0;
            for (ZipEntry e = zip.getNextEntry(); e != null && seen < MEMBERS_MOST; e = zip.getNextEntry()) {
                seen++;
                String name = e.getName();
                types |= name.equals("[Content_Types].xml");
                if (name.equals("word/document.xml")) {
                    kind = "wordprocessingml.document";
                } else if (name.equals("xl/workbook.xml")) {
                    kind = "spreadsheetml.sheet";
                } else if (name.equals("ppt/presentation.xml")) {
                    kind = "presentationml.presentation";
                }
                if (types && !kind.isEmpty()) {
                    return Optional.of(PREFIX + kind);
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            // Damaged, or only its first bytes are here: it stays a ZIP file.
            org.slf4j.LoggerFactory.getLogger(OfficeXml.class).trace("no office document", e);
        }
        return Optional.empty();
    }
}
