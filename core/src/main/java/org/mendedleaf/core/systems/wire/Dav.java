package org.mendedleaf.core.systems.wire;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.words.Words;

/** The XML of WebDAV (RFC 4918): what is asked, and multi-status answers. */
final class Dav {

    static final String LIBRARY_NAMESPACE = "urn:office-library";

    /** Elements that lie deeper in each other than any answer has them. */
    private static final int DEEPEST = 200;

    private Dav() {}

    /** What an answer says of one resource: properties by name without namespace, and whether it is a folder. */
    record Resource(String href, boolean folder, Map<String, String> properties) {
        String get(String name) {
            return properties.getOrDefault(name, "");
        }

        /** How large it is, bytes; -1 when that is not told. */
        long size() {
            String text = get("getcontentlength");
            return text.matches("\\d{1,18}") ? Long.parseLong(text) : -1;
        }

        /** Modified time; the epoch when it is not told. */
        Instant modified() {
            try {
                return DateTimeFormatter.RFC_1123_DATE_TIME.parse(get("getlastmodified"), Instant::from);
            } catch (DateTimeParseException e) {
                return Instant.EPOCH;
            }
        }
    }

    /** The body of a PROPFIND that asks for these properties. */
    static byte[] propfind(List<String> dav, List<String> library) {
        return ask("propfind", dav, library);
    }

    /** The body of a version-tree REPORT (RFC 3253, 3.7) that asks for these properties. */
    static byte[] versionTree(List<String> dav, List<String> library) {
        return ask("version-tree", dav, library);
    }

    private static byte[] ask(String element, List<String> dav, List<String> library) {
        StringBuilder xml = new StringBuilder("<?xml version=\"1.0\" encoding=\"utf-8\"?><D:" + element
                + " xmlns:D=\"DAV:\" xmlns:L=\"" + LIBRARY_NAMESPACE + "\"><D:prop>");
        dav.forEach(p -> xml.append("<D:").append(p).append("/>"));
        library.forEach(p -> xml.append("<L:").append(p).append("/>"));
        return xml.append("</D:prop></D:" + element + ">").toString().getBytes(StandardCharsets.UTF_8);
    }

    /**
     * Reads a multi-status answer, one response after the other, so that a large one takes no more memory than it is long.
     *
     * @throws SystemException.Garbled when it is none, or holds elements in each other deeper than any answer does
     */
    static List<Resource> read(byte[] body) throws IOException {
        try {
            XMLStreamReader xml = XML.createXMLStreamReader(new ByteArrayInputStream(body));
            List<Resource> found = new ArrayList<>();
            toStart(xml);
            while (child(xml)) {
                if (xml.getLocalName().equals("response")) {
                    found.add(response(xml));
                } else {
                    pass(xml);
                }
            }
            return found;
        } catch (XMLStreamException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", firstLine(String.valueOf(e.getMessage()))));
        }
    }

    private static final XMLInputFactory XML = factory();

    private static XMLInputFactory factory() {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        return factory;
    }

    private static Resource response(XMLStreamReader xml) throws XMLStreamException {
        String href = "";
        boolean folder = false;
        Map<String, String> properties = new HashMap<>();
        while (child(xml)) {
            switch (xml.getLocalName()) {
                case "href" -> href = text(xml).strip();
                case "propstat" -> {
                    Stat stat = stat(xml);
                    if (stat.good()) {
                        properties.putAll(stat.properties());
                        folder |= stat.folder();
                    }
                }
                default -> pass(xml);
            }
        }
        return new Resource(href, folder, properties);
    }

    private record Stat(boolean good, boolean folder, Map<String, String> properties) {}

    private static Stat stat(XMLStreamReader xml) throws XMLStreamException {
        boolean good = false;
        boolean folder = false;
        Map<String, String> properties = new HashMap<>();
        while (child(xml)) {
            switch (xml.getLocalName()) {
                case "status" -> good = text(xml).contains(" 200");
                case "prop" -> {
                    while (child(xml)) {
                        String name = xml.getLocalName();
                        if (name.equals("resourcetype")) {
                            while (child(xml)) {
                                folder |= xml.getLocalName().equals("collection");
                                pass(xml);
                            }
                        } else {
                            properties.put(name, text(xml));
                        }
                    }
                }
                default -> pass(xml);
            }
        }
        return new Stat(good, folder, properties);
    }

    private static void toStart(XMLStreamReader xml) throws XMLStreamException {
        while (xml.next() != XMLStreamConstants.START_ELEMENT) {
            if (xml.getEventType() == XMLStreamConstants.DTD) {
                throw new XMLStreamException("a document type is not read");
            }
        }
    }

    /** Goes to the next element within the one that is open, or to its end. */
    private static boolean child(XMLStreamReader xml) throws XMLStreamException {
        while (true) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                return true;
            }
            if (event == XMLStreamConstants.END_ELEMENT) {
                return false;
            }
        }
    }

    /** Passes the end of the element that is open. */
    private static void pass(XMLStreamReader xml) throws XMLStreamException {
        text(xml);
    }

    /** All text within the element that is open; passes its end. */
    private static String text(XMLStreamReader xml) throws XMLStreamException {
        StringBuilder text = new StringBuilder();
        for (int depth = 1; depth > 0; ) {
            switch (xml.next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    if (++depth > DEEPEST) {
                        throw new XMLStreamException("elements lie in each other without end");
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> depth--;
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> text.append(xml.getText());
                default -> {
                    // Comments and the like say nothing.
                }
            }
        }
        return text.toString();
    }

    private static String firstLine(String text) {
        return text.lines().findFirst().orElse("");
    }

    /**
     * The decoded path of a reference, without host.
     *
     * @throws SystemException.Garbled when it is none
     */
    static String path(String href) throws SystemException {
        String raw = href;
        int scheme = raw.indexOf("://");
        if (scheme >= 0) {
            int slash = raw.indexOf('/', scheme + 3);
            raw = slash < 0 ? "/" : raw.substring(slash);
        }
        try {
            return URLDecoder.decode(raw.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", href));
        }
    }
}
