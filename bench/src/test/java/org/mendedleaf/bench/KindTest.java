package org.mendedleaf.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;

/** What the guard is measured with is what it says it is: real documents, edited a little, the same in every run. */
class KindTest {

    private static Prose prose(long seed) {
        return new Prose(new Random(seed));
    }

    @TestFactory
    Stream<DynamicTest> aDocumentIsReadableAndEachEditAndSiblingIsAnother() {
        return Kind.all(prose(3)).stream().map(k -> DynamicTest.dynamicTest(k.name, () -> check(k)));
    }

    private static <T> void check(Kind<T> kind) {
        T first = kind.fresh();
        byte[] bytes = kind.bytes(first);
        byte[] edited = kind.bytes(kind.edit(first));
        byte[] sibling = kind.bytes(kind.sibling(first));
        assertThat(bytes).isNotEmpty();
        assertThat(Arrays.equals(bytes, edited)).as("edited").isFalse();
        assertThat(Arrays.equals(bytes, sibling)).as("one more of the series").isFalse();
        for (byte[] each : new byte[][] {bytes, edited, sibling}) {
            Document read = Documents.read("a" + kind.ending, each, false);
            if (read instanceof Document.Other other) {
                assertThat(other.why()).as("%s is not damaged", kind.name).isEmpty();
            }
        }
    }

    @Test
    void theSameNumbersMakeTheSameDocuments() {
        assertThat(prose(5).paragraphs(3, 9)).isEqualTo(prose(5).paragraphs(3, 9));
        assertThat(prose(5).paragraphs(3, 9)).isNotEqualTo(prose(6).paragraphs(3, 9));
    }

    @Test
    void eachKindHasANameOfItsOwn() {
        Set<String> names = new HashSet<>();
        assertThat(Kind.all(prose(1)))
                .allSatisfy(k -> assertThat(names.add(k.name)).isTrue());
    }

    @Test
    void theMiddleOfWhatWasMeasuredIsNeitherItsBestNorItsWorst() {
        assertThat(Table.median(new double[] {9, 1, 5})).isEqualTo(5);
        assertThat(Table.median(new double[] {7})).isEqualTo(7);
        double[] values = {3, 2, 1};
        Table.median(values);
        assertThat(values).as("what was measured stays in its order").containsExactly(3, 2, 1);
    }
}
