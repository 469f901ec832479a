package org.mendedleaf.core.document;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** Reads XML element by element: no document types, no entities from outside, not deeper than the limit. */
final class XmlReader implements AutoCloseable {

    private static final XMLInputFactory FACTORY = XMLInputFactory.newInstance();

    static {
        FACTORY.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        FACTORY.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    }

    private final XMLStreamReader reader;
    private final int deepest;
    private int depth;
    private int elements;

    XmlReader(InputStream in, Limits limits) throws IOException {
        try {
            reader = FACTORY.createXMLStreamReader(in);
        } catch (XMLStreamException e) {
            throw broken(e);
        }
        deepest = limits.depth();
    }

    /** Goes on; false at the end. */
    boolean next() throws IOException {
        try {
            if (!reader.hasNext()) {
                return false;
            }
            int event = reader.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                elements++;
                if (++depth > deepest) {
                    throw new DocumentException(Words.of("document.tooDeep"));
                }
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                depth--;
            }
            return true;
        } catch (XMLStreamException e) {
            throw broken(e);
        }
    }

    private static IOException broken(XMLStreamException e) {
        return e.getNestedException() instanceof IOException io
                ? io
                : new DocumentException(Words.of("document.xml"), e);
    }

    boolean isStart() {
        return reader.getEventType() == XMLStreamConstants.START_ELEMENT;
    }

    boolean isStart(String name) {
        return isStart() && reader.getLocalName().equals(name);
    }

    boolean isEnd() {
        return reader.getEventType() == XMLStreamConstants.END_ELEMENT;
    }

    boolean isEnd(String name) {
        return isEnd() && reader.getLocalName().equals(name);
    }

    boolean isText() {
        int event = reader.getEventType();
        return event == XMLStreamConstants.CHARACTERS
                || event == XMLStreamConstants.CDATA
                || event == XMLStreamConstants.SPACE;
    }

    String text() {
        return reader.getText();
    }

    /** Name of the element, without namespace. */
    String name() {
        return reader.getLocalName();
    }

    /** The prefix as it stands in the file; empty when there is none. */
    String prefix() {
        return reader.getPrefix() == null ? "" : reader.getPrefix();
    }

    int depth() {
        return depth;
    }

    /** An attribute by its local name, whatever its namespace. */
    @Nullable
    String get(String attribute) {
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            if (reader.getAttributeLocalName(i).equals(attribute)) {
                return reader.getAttributeValue(i);
            }
        }
        return null;
    }

    /** All attributes with this local name, whatever their namespace. */
    List<String> all(String attribute) {
        List<String> found = new ArrayList<>();
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            if (reader.getAttributeLocalName(i).equals(attribute)) {
                found.add(reader.getAttributeValue(i));
            }
        }
        return found;
    }

    String get(String attribute, String otherwise) {
        String value = get(attribute);
        return value == null ? otherwise : value;
    }

    /** A number in an attribute, not less than {@code least} and not more than {@code most}. */
    int number(String attribute, int otherwise, int least, int most) {
        String value = get(attribute);
        if (value == null) {
            return otherwise;
        }
        try {
            return (int) Math.max(least, Math.min(most, Long.parseLong(value.strip())));
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    /** The number of the element that began last, counted from 0 in the order in which they begin. */
    int element() {
        return elements - 1;
    }

    /** Goes to the end of the element that just began, past all that is in it. */
    void skip() throws IOException {
        int at = depth;
        while (next()) {
            if (isEnd() && depth < at) {
                return;
            }
        }
    }

    @Override
    public void close() throws IOException {
        try {
            reader.close();
        } catch (XMLStreamException e) {
            throw broken(e);
        }
    }
}
