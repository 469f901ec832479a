package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;

class UsualRulesTest {

    @TempDir
    Path temp;

    private static RuleSet rules(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            return RuleSets.of(reading);
        }
    }

    @ParameterizedTest
    @EnumSource(UsualRules.class)
    void whatIsSetIsReadBackAndSaysWhatItIs(UsualRules usual) throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            usual.set(p.vault(), p.place(), p.clock(), "Ines");
            Optional<Rule> rule = usual.rule("desk", RuleScope.ALL);
            assertThat(rules(p).rules()).hasSize(rule.isPresent() ? 1 : 0);
            assertThat(rules(p).standing()).isEqualTo(rule.isPresent());
            rule.ifPresent(r -> assertThat(usual.sentence()).isEqualTo(r.sentence()));
            assertThat(usual.sentence()).endsWith(".");
        }
    }

    @Test
    void theNewestVersionAndTheLastOfEachMonthStayAndTheOthersGo() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            UsualRules.SHORT.set(p.vault(), p.place(), p.clock(), "Ines");
            for (int i = 0; i < 12; i++) {
                p.save("a.txt", "version " + i);
                p.capture();
                p.later(15 * 24 * 60);
            }
            p.later(200 * 24 * 60);
            try (Reading reading = p.vault().read()) {
                Verdicts v = WholeVerdicts.of(
                        reading,
                        RuleSets.of(reading),
                        p.now(),
                        new Calendar(java.time.ZoneOffset.UTC, java.time.DayOfWeek.MONDAY));
                int line = v.table().lineRow(p.line("a.txt").id());
                long going = java.util.stream.IntStream.range(
                                v.table().first(line), v.table().first(line + 1))
                        .filter(v::goes)
                        .count();
                assertThat(going)
                        .as("about every other one of those in one month")
                        .isBetween(4L, 6L);
                assertThat(v.reason(v.table().first(line + 1) - 1)).isEqualTo(Reason.NEWEST);
            }
        }
    }

    @Test
    void otherRulesStayAndAreCarriedOutAsBefore() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            Rule own = Rule.keepAll("Own", RuleScope.ALL);
            RuleSets.set(p.vault(), RuleSet.NONE.with(own), p.clock(), "Ines");
            UsualRules.LONG.set(p.vault(), p.place(), p.clock(), "Ines");
            assertThat(rules(p).rules()).extracting(Rule::name).containsExactly("Own", "desk");
            assertThat(rules(p).standing()).as("nobody said so").isFalse();
        }
    }
}
