package org.mendedleaf.core.document;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;

/** Which part another part of Office Open XML means by an id (ISO/IEC 29500-2, 9.3). */
final class Relations {

    private Relations() {}

    /** Names of parts by id. What lies outside of the document is left out. */
    static Map<String, String> of(Parts parts, String part, Limits limits) throws IOException {
        int slash = part.lastIndexOf('/');
        String folder = part.substring(0, slash + 1);
        String rels = folder + "_rels/" + part.substring(slash + 1) + ".rels";
        Map<String, String> found = new HashMap<>();
        byte[] bytes = parts.bytes(rels).orElse(new byte[0]);
        if (bytes.length == 0) {
            return found;
        }
        try (XmlReader xml = new XmlReader(new ByteArrayInputStream(bytes), limits)) {
            while (xml.next()) {
                if (xml.isStart("Relationship") && !xml.get("TargetMode", "").equals("External")) {
                    found.put(xml.get("Id", ""), resolve(folder, xml.get("Target", "")));
                }
            }
        }
        return found;
    }

    private static String resolve(String folder, String target) {
        if (target.startsWith("/")) {
            return target.substring(1);
        }
        String at = folder;
        String rest = target;
        while (rest.startsWith("../")) {
            rest = rest.substring(3);
            int up = at.lastIndexOf('/', Math.max(0, at.length() - 2));
            at = up < 0 ? "" : at.substring(0, up + 1);
        }
        return at + rest;
    }
}
