package org.mendedleaf.sample;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Sentences as the people of the office write them, by what they are writing. */
enum Phrases {
    /** Minutes of meetings: who was there, what was said, what was decided. */
    MINUTES(
            "Present: {who}, {who2} and {n} members; {who3} sent apologies.",
            "{who} reported that {n} crates of {kind} were pressed in the week of {day} {month}.",
            "Decided: {who} buys {n} new pressing cloths, for {euro} euros at most.",
            "Decided: the gate stays locked on weekdays from {day} {month}; {who} keeps the second key.",
            "{who2} asked for a quote for the pump; until then the old one is used with care.",
            "The scale at the gate shows {n} kilos too many; {who} has it looked at before {day} {month}.",
            "Decided with {n} votes against one: members pay {euro} euros a crate from {month} on.",
            "{who} and {who2} walk the hedge on {day} {month} and mark what must be cut.",
            "The insurance asks for a list of the ladders; {who3} writes it by the next meeting.",
            "Any other business: the school wants to come with {n} children on {day} {month}.",
            "Decided: nothing is sold below {euro} euros a bottle, whoever asks.",
            "The treasurer showed the cash book; {euro} euros are in hand, {n} receipts are missing.",
            "Next meeting: {day} {month}, seven in the evening, in the press space."),
    /** Leases and contracts: clauses. */
    LEASE(
            "The lessor leaves to the lessee the parcel with all trees, fences and the well, from {day} {month} on.",
            "The rent is {euro} euros a year, payable in two halves, on {day} {month} and at Michaelmas.",
            "The lessee keeps the grass short and cuts the hedge at least {small} times a year.",
            "No tree may be felled without the written consent of the lessor, given within {n} days.",
            "The lessee may keep up to {n} hives and as many sheep as the meadow feeds.",
            "Vehicles of more than {small} tonnes may not enter between {month} and spring.",
            "The well is shared with the neighbour; repairs above {euro} euros are borne by both in equal parts.",
            "Either party may give notice in writing, {n} weeks before the end of a year.",
            "At the end of the lease the parcel is handed back cleared, with the keys and {small} ladders.",
            "If the rent is more than {n} days late, the lessor may ask for {small} per cent on it.",
            "The lessee insures the harvest himself; the lessor is not liable for frost, hail or wind.",
            "Changes of this contract need the written form; this holds for this clause too."),
    /** Letters to members, the newsletter. */
    LETTER(
            "Dear members, the {kind} were early this year: {n} crates before the end of {month}.",
            "Thanks to {who} and {who2}, who mended the press on a Sunday, it ran again by {day} {month}.",
            "On {day} {month} we open the press for everybody; bring your apples washed, and not in sacks.",
            "A bottle of the new cider costs {euro} euros for members; there are {n} left of last year's.",
            "The juice of the early apples was thin and went to vinegar, which {who} sells from {month} on.",
            "The bees came through: {n} hives are alive, and {who2} shows them on {day} {month}.",
            "We still look for {small} people for the rota in {month}; write to {who}.",
            "The old pears by the wall were grafted, {n} of them, and {small} have taken.",
            "Whoever has borrowed the long ladder: {who3} needs it back before {day} {month}.",
            "Frost on the north side, no damage in the walled garden.",
            "The lower meadow is mown on {day} {month}; helpers get lunch and a bottle of {kind}.",
            "In {month} the seed library is open on Saturdays; {n} sorts can be had."),
    /** An application for a grant. */
    GRANT(
            "We ask for {euro} hundred euros for the restoration of {n} standard trees of {kind}.",
            "The orchard was planted before 1930 and holds {n} sorts, {small} of them on the regional red list.",
            "In {month} the trees are surveyed by {who}; the survey is attached with {n} photographs.",
            "Members give {n} hours of work a year, which we count at {small} euros an hour.",
            "The press is open to {n} households; half of the juice goes to schools and the food bank.",
            "Of the costs, {n} per cent are borne by the association and {small} by the municipality.",
            "The works begin on {day} {month} and end before the sap rises.",
            "Each tree is labelled, mapped, and seen again after {small} years.",
            "Without the grant the {kind} on the slope would be lost within {small} winters.",
            "We report in {month} of each year, with figures and receipts."),
    /** How things are done, cards and notes. */
    NOTE(
            "Soak the {kind} for {n} minutes, then rinse twice.",
            "Ask {who} for the key; it hangs behind the {small}th hook.",
            "Sow {n} seeds a tray, {small} millimetres deep, not before {month}.",
            "Of {n} seeds {small} came up by {day} {month}.",
            "The pump needs {small} minutes to fill; stay beside it.",
            "From the tree by the gate, picked by {who} on {day} {month}.",
            "Clean the cloths with soda, {n} grams to a bucket, and hang them in the shade.",
            "Pays {euro} euros a year, helps at the press in {month}.",
            "Speaks to {who} when something is short.",
            "Keep dry and below {small} degrees; label with sort and year.",
            "Joined in {month}, has {n} crates of {kind} to be pressed.",
            "The blade is sharpened after {n} crates, by {who} or {who2}.");

    private static final String[] MONTHS = {
        "March", "April", "May", "June", "July", "August", "September", "October", "November"
    };

    private final String[] sentences;

    Phrases(String... sentences) {
        this.sentences = sentences;
    }

    /** What somebody writes under this title. */
    static Phrases of(String title) {
        if (title.startsWith("Minutes")) {
            return MINUTES;
        }
        if (title.startsWith("Lease") || title.contains("contract") || title.contains("Insurance")) {
            return LEASE;
        }
        if (title.startsWith("Grant")) {
            return GRANT;
        }
        return title.startsWith("Letter") || title.startsWith("Dear") ? LETTER : NOTE;
    }

    /** A paragraph of one to three sentences. */
    List<String> paragraph(Random random) {
        List<String> made = new ArrayList<>();
        int count = 1 + random.nextInt(3);
        int first = random.nextInt(sentences.length);
        // Three of them are three different ones.
        int apart = sentences.length % 5 == 0 ? 3 : 5;
        for (int i = 0; i < count; i++) {
            made.add(sentence(random, (first + i * apart) % sentences.length));
        }
        return made;
    }

    /** A sentence as somebody in the office would write it; the same for the same numbers. */
    String sentence(Random random) {
        return sentence(random, random.nextInt(sentences.length));
    }

    private String sentence(Random random, int which) {
        List<String> people = Office.PEOPLE;
        int who = random.nextInt(people.size());
        return sentences[which]
                .replace("{who}", people.get(who))
                .replace("{who2}", people.get((who + 1 + random.nextInt(2)) % people.size()))
                .replace("{who3}", people.get((who + 3) % people.size()))
                .replace("{kind}", Draft.KINDS[random.nextInt(Draft.KINDS.length)])
                .replace("{day}", Integer.toString(1 + random.nextInt(28)))
                .replace("{month}", MONTHS[random.nextInt(MONTHS.length)])
                .replace("{euro}", Integer.toString(3 + random.nextInt(60)))
                .replace("{small}", Integer.toString(2 + random.nextInt(6)))
                .replace("{n}", Integer.toString(8 + random.nextInt(90)));
    }
}
