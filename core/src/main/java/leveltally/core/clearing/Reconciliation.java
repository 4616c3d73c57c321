package leveltally.core.clearing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import leveltally.core.reports.Report;

/**
 * Bank and ledger beside each other at the end of a day: the bank's balance, and what leads from it to the ledger's cash, row by
 * row.
 *
 * @param bank what the statements say
 * @param sections in their order; their sums added to the bank's balance are the ledger's cash
 */
public record Reconciliation(String account, LocalDate on, Money bank, List<Section> sections, Money ledger) {
    public Reconciliation {
        sections = List.copyOf(sections);
    }

    /** Why bank and ledger differ. */
    public enum Kind {
        OUTSTANDING("Checks outstanding", "posted, and not paid by the bank"),
        IN_TRANSIT("In transit", "in the ledger, and not at the bank"),
        OWED("Owed by the bank", "paid wrongly or to be returned, and not given back"),
        OPEN("At the bank, not in the ledger", "to be answered, entered or matched; or entered later"),
        LISTED("Told by a list or by hand", "paid by the bank, and on no statement yet"),
        GAP("Statements missing", "where one does not follow the one before"),
        BEGINNING("Difference at the beginning", "from before the first statement");

        private final String words;
        private final String about;

        Kind(String words, String about) {
            this.words = words;
            this.about = about;
        }

        public String words() {
            return words;
        }

        public String about() {
            return about;
        }
    }

    /**
     * A row.
     *
     * @param amount as it is added to the bank's balance
     */
    public record Row(LocalDate day, String what, String more, Money amount) {}

    /**
     * @param count of all its rows
     * @param sum of all its rows
     */
    public record Section(Kind kind, List<Row> rows, int count, Money sum) {
        public Section {
            rows = List.copyOf(rows);
        }

        public static Section of(Kind kind, List<Row> rows, Money none) {
            return new Section(
                    kind, rows, rows.size(), rows.stream().map(Row::amount).reduce(none, Money::plus));
        }
    }

    public Money sum(Kind kind) {
        return sections.stream()
                .filter(section -> section.kind() == kind)
                .map(Section::sum)
                .reduce(Money.zero(bank.currency()), Money::plus);
    }

    /** What leads from bank to ledger beside what is outstanding and in transit. */
    public Money explained() {
        return sections.stream()
                .filter(section -> section.kind() != Kind.OUTSTANDING && section.kind() != Kind.IN_TRANSIT)
                .map(Section::sum)
                .reduce(Money.zero(bank.currency()), Money::plus);
    }

    /** What nothing explains; zero where all is in order. */
    public Money unexplained() {
        Money reached =
                bank.plus(sum(Kind.OUTSTANDING)).plus(sum(Kind.IN_TRANSIT)).plus(explained());
        return ledger.minus(reached);
    }

    /** @throws Refusal while something is not explained */
    public void mustBeExplained() {
        if (!unexplained().isZero()) {
            throw Refusal.conflict(
                    "not-reconciled",
                    "Bank and ledger differ by " + unexplained()
                            + " that nothing explains. Run the proof, and look at what" + " was matched on "
                            + Dates.inWords(on) + " and before.");
        }
    }

    /** As it is printed and kept. */
    public Report report(List<String> facts) {
        List<Report.Line> lines = new ArrayList<>();
        lines.add(Report.Line.total("", "The bank's balance", "", bank.toString()));
        for (Section section : sections) {
            if (section.count() > 0) {
                lines.add(Report.Line.group(
                        section.kind().words() + ": " + section.kind().about()));
                section.rows()
                        .forEach(row -> lines.add(Report.Line.row(
                                Dates.inWords(row.day()),
                                row.what(),
                                row.more(),
                                row.amount().toString())));
                lines.add(Report.Line.total(
                        "",
                        section.count() == 1 ? "1 row" : section.count() + " rows",
                        "",
                        section.sum().toString()));
            }
        }
        if (!unexplained().isZero()) {
            lines.add(Report.Line.total("", "Not explained", "", unexplained().toString()));
        }
        lines.add(Report.Line.total("", "The ledger's cash", "", ledger.toString()));
        return new Report(
                account + " on " + Dates.inWords(on),
                facts,
                List.of(
                        new Report.Head("Day", 18, false),
                        new Report.Head("What", 34, false),
                        new Report.Head("", 40, false),
                        new Report.Head("Amount", 18, true)),
                lines);
    }
}
