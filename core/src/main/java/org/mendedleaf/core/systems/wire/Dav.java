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
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.words.Words;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;

/** The XML of WebDAV (RFC 4918): what is asked, and multi-status answers. */
final class Dav {

    static final String LIBRARY_NAMESPACE = "urn:office-library";

    private Dav() {}

    /** What an answer says of one resource: properties by name without namespace, and whether it is a folder. */
    record Resource(String href, boolean folder, Map<String, String> properties) {
        String get(String name) {
            return properties.getOrDefault(name, "");
        }

        long size() {
            String text = get("getcontentlength");
            return text.matches("\\d{1,18}") ? Long.parseLong(text) : 0;
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

    /** Reads a multi-status answer. */
    static List<Resource> read(byte[] body) throws IOException {
        List<Resource> found = new ArrayList<>();
        for (Element response : children(root(body), "response")) {
            String href = "";
            boolean folder = false;
            Map<String, String> properties = new HashMap<>();
            for (Element e : children(response, "href")) {
                href = e.getTextContent().strip();
            }
            for (Element stat : children(response, "propstat")) {
                boolean good = children(stat, "status").stream()
                        .anyMatch(s -> s.getTextContent().contains(" 200"));
                for (Element prop : children(stat, "prop")) {
                    for (Element p : elements(prop)) {
                        if (good) {
                            properties.put(p.getLocalName(), p.getTextContent());
                            folder |= p.getLocalName().equals("resourcetype")
                                    && !children(p, "collection").isEmpty();
                        }
                    }
                }
            }
            found.add(new Resource(href, folder, properties));
        }
        return found;
    }

    private static Element root(byte[] body) throws IOException {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            var builder = factory.newDocumentBuilder();
            builder.setErrorHandler(null);
            return builder.parse(new ByteArrayInputStream(body)).getDocumentElement();
        } catch (SAXException e) {
            throw new SystemException.Garbled(Words.of("system.garbled", e.getMessage()));
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }

    private static List<Element> elements(Element of) {
        List<Element> found = new ArrayList<>();
        for (Node n = of.getFirstChild(); n != null; n = n.getNextSibling()) {
            if (n instanceof Element e) {
                found.add(e);
            }
        }
        return found;
    }

    private static List<Element> children(Element of, String name) {
        return elements(of).stream().filter(e -> name.equals(e.getLocalName())).toList();
    }

    /** The decoded path of a reference, without host. */
    static String path(String href) {
        String raw = href;
        int scheme = raw.indexOf("://");
        if (scheme >= 0) {
            int slash = raw.indexOf('/', scheme + 3);
            raw = slash < 0 ? "/" : raw.substring(slash);
        }
        return URLDecoder.decode(raw.replace("+", "%2B"), StandardCharsets.UTF_8);
    }
}
