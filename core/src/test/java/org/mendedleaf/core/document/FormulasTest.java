package org.mendedleaf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class FormulasTest {

    /** A row came in before the third. */
    private static String came(String formula) {
        return Formulas.map(
                formula,
                (sheet, first, last) -> sheet.equals("Other")
                        ? Optional.of(new int[] {first, last})
                        : Optional.of(new int[] {first + (first >= 2 ? 1 : 0), last + (last >= 2 ? 1 : 0)}));
    }

    /** The third row went. */
    private static String went(String formula) {
        return Formulas.map(formula, (sheet, first, last) -> {
            int from = first > 2 ? first - 1 : first;
            int to = last >= 2 ? last - 1 : last;
            return to < from ? Optional.empty() : Optional.of(new int[] {from, to});
        });
    }

    @Test
    void cellsRangesAndOtherSheetsAreFollowed() {
        assertThat(came("=SUM(B2:B9)+C3*$D$1")).isEqualTo("=SUM(B2:B10)+C4*$D$1");
        assertThat(came("=Other!A5+'My sheet'!A5")).isEqualTo("=Other!A5+'My sheet'!A6");
        assertThat(came("of:=SUM([.B2:.B9])+[$Other.A5]")).isEqualTo("of:=SUM([.B2:.B10])+[$Other.A5]");
        assertThat(went("=SUM(B2:B3)+B3")).isEqualTo("=SUM(B2:B2)+#REF!");
    }

    @Test
    void textsFunctionsAndNamesAreLeftAlone() {
        assertThat(came("=IF(A1=\"B7:B9\",LOG10(A9),ROUND(A9,2))&\"C5\"\"D6\""))
                .isEqualTo("=IF(A1=\"B7:B9\",LOG10(A10),ROUND(A10,2))&\"C5\"\"D6\"");
        assertThat(came("=rate_A9 + A9.x")).isEqualTo("=rate_A9 + A9.x");
        assertThat(came("=A12345678")).isEqualTo("=A12345678");
    }

    @Test
    void aSharedFormulaIsCopiedAsCellsAreFilled() {
        assertThat(Formulas.moved("A1*$B1+C$1+$D$1", 3, 2)).isEqualTo("C4*$B4+E$1+$D$1");
        assertThat(Formulas.moved("SUM(Z1:AA2)", 0, 1)).isEqualTo("SUM(AA1:AB2)");
    }

    @Test
    void aFormulaOfOpenDocumentIsSaidInTheOtherNotation() {
        assertThat(Formulas.plain("=SUM([.B2:.B9];[$Fees.A1])")).isEqualTo("SUM(B2:B9,Fees!A1)");
        assertThat(Formulas.plain("=IF([.A1]=\"a;[.b]\";1;[$'My sheet'.B2:.C3])"))
                .isEqualTo("IF(A1=\"a;[.b]\",1,'My sheet'!B2:C3)");
    }

    @Property(tries = 100)
    void movingThereAndBackChangesNothing(
            @ForAll @IntRange(min = 0, max = 900) int rows, @ForAll @IntRange(min = 0, max = 700) int columns) {
        String formula = "SUM(B3:AB12)*'x y'!C$4-$A7&\"A1\"";
        assertThat(Formulas.moved(Formulas.moved(formula, rows, columns), -rows, -columns))
                .isEqualTo(formula);
    }
}
