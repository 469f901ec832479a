package org.mendedleaf.core.pick;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ElementsTest {

    private static final String XML =
            "<?xml version='1.0'?><!-- <no/> --><a:r one=\"1 > 0\" x:two='&amp;&#65;&#x42;'>\n"
                    + "<b/><![CDATA[<c>]]><d ><e>in</e></d\n></a:r>";

    @Test
    void elementsAreFoundWhereTheyBeginAndEnd() {
        Elements xml = Elements.of(XML);
        assertThat(xml.all()).extracting(Elements.Element::local).containsExactly("r", "b", "d", "e");
        assertThat(xml.root().get("one")).contains("1 > 0");
        assertThat(xml.root().get("two")).contains("&AB");
        assertThat(xml.root().get("three")).isEmpty();
        Elements.Element d = xml.all().get(2);
        assertThat(d.whole()).isEqualTo("<d ><e>in</e></d\n>");
        assertThat(d.content()).isEqualTo("<e>in</e>");
        assertThat(d.children().get(0).around("r")).contains(xml.root());
        assertThat(xml.root().within()).extracting(Elements.Element::local).containsExactly("b", "d", "e");
    }

    @Test
    void whatIsNotWellFormedOrDeclaresATypeIsRefused() {
        for (String bad : List.of("<a>", "<a></b>", "</a>", "", "text", "<a", "<!DOCTYPE a><a/>", "<a/><!-- ")) {
            assertThatThrownBy(() -> Elements.of(bad)).as(bad).isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void attributesAreSetAddedAndTakenAwayInATag() {
        assertThat(Elements.set("<a x=\"1\" xx='2'>", "x", "a\"b&")).isEqualTo("<a x=\"a&quot;b&amp;\" xx='2'>");
        assertThat(Elements.set("<a xx='2'/>", "x", "1")).isEqualTo("<a xx='2' x=\"1\"/>");
        assertThat(Elements.set("<a x=\"1\" y='2'>", "x", null)).isEqualTo("<a y='2'>");
        assertThat(Elements.set("<a>", "x", null)).isEqualTo("<a>");
    }

    @Test
    void onlyWhatIsReplacedIsWrittenAnewAndTwoChangesOfOnePlaceAreRefused() {
        Elements.Splices splices = new Elements.Splices();
        splices.put(2, 4, "XX");
        splices.put(6, 6, "+");
        splices.put(6, 6, "-");
        assertThat(splices.apply("0123456789")).isEqualTo("01XX45+-6789");
        splices.put(3, 5, "Y");
        assertThatThrownBy(() -> splices.apply("0123456789")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> splices.put(2, 3, "Z")).isInstanceOf(IllegalArgumentException.class);
    }

    @Property(tries = 200)
    void aTextIsTheSameAfterItWasWrittenForXml(@ForAll String text) {
        assertThat(Elements.plain(Elements.escaped(text))).isEqualTo(text);
    }
}
