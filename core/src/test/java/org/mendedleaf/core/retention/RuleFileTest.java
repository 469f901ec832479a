package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.time.Moment;

/** Rules as people write them, and what is said of wrong ones. */
class RuleFileTest {

    private static final String YAML = """
            grace: P3D
            standing: true
            rules:
              - name: Office
                everything: P30D
                last: {daily: P90D, monthly: P2Y}
                atLeast: 3
                removed: P1Y
              - name: Pictures
                scope: {kinds: [picture], folders: [Labels/], names: "*.png"}
                last: {weekly: forever}
                atMost: 20
                dropAfter: P5Y
                capBytes: 2000000000
                whenNeeded: true
            """;

    @Test
    void yamlAndJsonSayTheSame() {
        RuleSet rules = RuleFile.read(YAML);
        assertThat(RuleFile.read(RuleFile.json(rules))).isEqualTo(rules);
        assertThat(RuleFile.read(RuleFile.yaml(rules))).isEqualTo(rules);
        assertThat(rules.grace()).isEqualTo(Term.days(3));
        assertThat(rules.standing()).isTrue();
        assertThat(rules.rules().get(1))
                .isEqualTo(new Rule(
                        "Pictures",
                        new RuleScope(List.of(), List.of("Labels"), List.of("*.png"), Set.of(ContentKind.PICTURE)),
                        Optional.empty(),
                        Map.of(Level.WEEKLY, Term.FOREVER),
                        1,
                        20,
                        Optional.of(new Term(5, Term.Unit.YEARS)),
                        Optional.empty(),
                        2_000_000_000L,
                        true));
    }

    private static JsonSchema schema() throws IOException {
        return JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                .getSchema(Files.readString(Path.of("../docs/retention.schema.json")));
    }

    @Test
    void thePublishedSchemaAllowsWhatIsWrittenAndRefusesWhatIsRefused() throws IOException {
        assertThat(schema().validate(RuleFile.json(RuleFile.read(YAML)), InputFormat.JSON))
                .isEmpty();
        assertThat(schema().validate(YAML, InputFormat.YAML)).isEmpty();
        for (String wrong : List.of(
                "rules: [{name: a, everything: 30 days}]",
                "rules: [{name: a, last: {hurly: P1D}}]",
                "rules: [{everything: P1D}]",
                "rules: [{name: a, scope: {kinds: [song]}}]",
                "grace: forever",
                "keep: 5")) {
            assertThat(schema().validate(wrong, InputFormat.YAML)).as(wrong).isNotEmpty();
        }
    }

    @Test
    void aRuleIsOneSentence() {
        RuleSet rules = RuleFile.read(YAML);
        assertThat(rules.rules().get(0).sentence())
                .isEqualTo(
                        "Of all files, keep every version for 30 days, the last of each day for 90 days and the last of"
                                + " each month for 2 years; always the newest 3; removed files for 1 year.");
        assertThat(rules.rules().get(1).sentence())
                .isEqualTo("Of pictures named *.png in Labels, keep the last of each week for good; never more than 20;"
                        + " nothing longer than 5 years; together no more than 2.00 GB; what may go stays until space"
                        + " is needed.");
        assertThat(Rule.keepAll("x", RuleScope.ALL).sentence()).isEqualTo("Of all files, keep every version for good.");
    }

    @Test
    void anEmptyFileKeepsAll() {
        assertThat(RuleFile.read("")).isEqualTo(RuleSet.NONE);
        assertThat(RuleFile.read("# nothing yet\n")).isEqualTo(RuleSet.NONE);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "rules: [{name: a, everything: 30 days}] | rules[0].everything: A time is written as",
                "rules: [{name: a, last: {hurly: P1D}}] | rules[0].last.hurly: unknown; known are daily, hourly",
                "rules: [{everything: P1D}] | rules[0].name: expected a text",
                "rules: [{name: a, scope: {kinds: [song]}}] | rules[0].scope.kinds: unknown kind song; known are empty",
                "rules: [{name: a, atLeast: -1}] | rules[0].atLeast: expected a whole number",
                "rules: [{name: a, atLeast: 5, atMost: 2}] | rules[0]: The rule “a” keeps 2 versions at most and 5 at least",
                "rules: [{name: a}, {name: a}] | Two rules are called “a”",
                "rules: {name: a} | rules: expected a list",
                "grace: forever | grace: a grace time has an end",
                "standing: perhaps | standing: expected true or false",
                "keep: 5 | keep: unknown; known are grace, rules, standing",
                "rules: [{name: a, scope: {folders: [../up]}}] | rules[0]: A folder is written as",
                "'rules: [' | This is neither YAML nor JSON"
            })
    void whatIsWrongIsSaidWithItsPlace(String text, String words) {
        assertThatThrownBy(() -> RuleFile.read(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith(words);
    }

    @ParameterizedTest
    @ValueSource(strings = {"P30D", "PT36H", "P12W", "P6M", "P2Y", "forever"})
    void timesAreReadAsTheyAreWritten(String text) {
        assertThat(Term.parse(text).text()).isEqualTo(text);
    }

    @Test
    void monthsFollowTheCalendar() {
        long from = Moment.micros(Instant.parse("2026-01-31T12:00:00Z"));
        assertThat(Moment.instant(new Term(1, Term.Unit.MONTHS).after(from, ZoneId.of("UTC"))))
                .isEqualTo(Instant.parse("2026-02-28T12:00:00Z"));
        // Daylight saving begins in between: noon stays noon.
        long winter = Moment.micros(Instant.parse("2026-03-01T11:00:00Z"));
        assertThat(Moment.instant(new Term(1, Term.Unit.MONTHS).after(winter, ZoneId.of("Europe/Vienna"))))
                .isEqualTo(Instant.parse("2026-04-01T10:00:00Z"));
        assertThat(Term.FOREVER.after(from, ZoneId.of("UTC"))).isEqualTo(Moment.OPEN);
        assertThat(Term.days(3).after(Moment.OPEN, ZoneId.of("UTC"))).isEqualTo(Moment.OPEN);
    }

    @Property(tries = 200)
    void everyRuleSetSurvivesBothWaysOfWriting(
            @ForAll @IntRange(min = 1, max = 400) int days,
            @ForAll @IntRange(min = 0, max = 9) int least,
            @ForAll boolean needed,
            @ForAll Level level) {
        Rule rule = Rule.keepAll("r: " + days, RuleScope.ALL)
                .withEverything(Optional.of(Term.days(days)))
                .withLast(level, Optional.of(new Term(days, Term.Unit.MONTHS)))
                .withCounts(least, least + days)
                .withSpace(days * 1000L, needed);
        RuleSet rules = new RuleSet(List.of(rule), new Term(days, Term.Unit.HOURS), needed);
        assertThat(RuleFile.read(RuleFile.yaml(rules))).isEqualTo(rules);
        assertThat(RuleFile.read(RuleFile.json(rules))).isEqualTo(rules);
    }
}
