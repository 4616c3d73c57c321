package leveltally.server.clearing;

import java.io.ByteArrayInputStream;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Currency;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import leveltally.core.Refusal;
import leveltally.core.clearing.BankReport;
import leveltally.core.clearing.Movement;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * A bank-to-customer statement, ISO 20022 camt.053.001 in any of its versions: booked entries only, each detail of an entry that
 * names its own amount as a movement of its own. Document types and entities are refused; what its summary counts has to agree.
 */
final class Camt053 {
    private static final String NAMESPACE = "urn:iso:std:iso:20022:tech:xsd:camt.053.001.";
    private static final int DEEPEST = 60;

    private final Currency currency;
    private final List<BankReport> statements = new ArrayList<>();
    private Map<String, String> statement = new HashMap<>();
    private Map<String, String> balance = new HashMap<>();
    private Map<String, String> entry = new HashMap<>();
    private Map<String, String> detail = new HashMap<>();
    private List<Map<String, String>> details = new ArrayList<>();
    private List<Movement> movements = new ArrayList<>();
    private @Nullable Money opening;
    private @Nullable Money closing;
    private int entries;

    private Camt053(Currency currency) {
        this.currency = currency;
    }

    /** Whether a file looks like one: its first character opens an element. */
    static boolean isMeant(byte[] content) {
        for (int i = 0; i < Math.min(content.length, 64); i++) {
            byte one = content[i];
            // a byte order mark and blanks may stand before
            if (one == '<') {
                return true;
            }
            if (one > ' ') {
                return false;
            }
        }
        return false;
    }

    /**
     * @param currency of the account; another one is refused
     * @return its statements in their order; of several accounts, all
     * @throws Refusal when it is none, or not a whole one
     */
    static List<BankReport> read(byte[] content, Currency currency) {
        Camt053 reading = new Camt053(currency);
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        try {
            reading.read(factory.createXMLStreamReader(new ByteArrayInputStream(content)));
        } catch (XMLStreamException broken) {
            throw refused("It is no readable XML: it breaks off near line "
                    + (broken.getLocation() == null ? 1 : broken.getLocation().getLineNumber())
                    + ", or it names entities of its own, which are not allowed.");
        }
        if (reading.statements.isEmpty()) {
            throw refused("There is no statement in it.");
        }
        return reading.statements;
    }

    private void read(XMLStreamReader xml) throws XMLStreamException {
        Deque<String> path = new ArrayDeque<>();
        StringBuilder text = new StringBuilder();
        String unit = "";
        while (xml.hasNext()) {
            switch (xml.next()) {
                case XMLStreamConstants.DTD ->
                    throw refused("It has a document type of its own (DOCTYPE), which may hide other files.");
                case XMLStreamConstants.START_ELEMENT -> {
                    if (path.isEmpty() && !String.valueOf(xml.getNamespaceURI()).startsWith(NAMESPACE)) {
                        throw refused("It is no camt.053 statement, but “" + xml.getLocalName() + "”.");
                    }
                    if (path.size() > DEEPEST) {
                        throw refused("It is nested deeper than any statement is.");
                    }
                    path.addLast(xml.getLocalName());
                    text.setLength(0);
                    String given = xml.getAttributeValue(null, "Ccy");
                    unit = given == null ? "" : given;
                    opened(below(path));
                }
                case XMLStreamConstants.CHARACTERS -> text.append(xml.getText());
                case XMLStreamConstants.END_ELEMENT -> {
                    String at = below(path);
                    if (!text.toString().isBlank()) {
                        keep(at, text.toString().strip(), unit);
                    }
                    text.setLength(0);
                    closed(at);
                    path.removeLast();
                }
                default -> {
                    // comments and instructions say nothing
                }
            }
        }
    }

    /** The path within a statement; what stands beside statements begins with a slash. */
    private static String below(Deque<String> path) {
        String whole = String.join("/", path);
        String stem = "Document/BkToCstmrStmt/Stmt";
        return whole.equals(stem)
                ? ""
                : whole.startsWith(stem + "/") ? whole.substring(stem.length() + 1) : "/" + whole;
    }

    private void opened(String at) {
        switch (at) {
            case "" -> {
                statement = new HashMap<>();
                movements = new ArrayList<>();
                opening = null;
                closing = null;
                entries = 0;
            }
            case "Bal" -> balance = new HashMap<>();
            case "Ntry" -> {
                entry = new HashMap<>();
                details = new ArrayList<>();
            }
            case "Ntry/NtryDtls/TxDtls" -> detail = new HashMap<>();
            default -> {
                // read by its parts
            }
        }
    }

    private void keep(String at, String text, String unit) {
        if (at.startsWith("Ntry/NtryDtls/TxDtls/")) {
            detail.merge(at.substring("Ntry/NtryDtls/TxDtls/".length()), text, (first, more) -> first + " " + more);
            unit(at, unit, detail);
        } else if (at.startsWith("Ntry/")) {
            entry.merge(at.substring("Ntry/".length()), text, (first, more) -> first + " " + more);
            unit(at, unit, entry);
        } else if (at.startsWith("Bal/")) {
            balance.put(at.substring("Bal/".length()), text);
            unit(at, unit, balance);
        } else if (!at.startsWith("/")) {
            statement.putIfAbsent(at, text);
        }
    }

    private static void unit(String at, String unit, Map<String, String> of) {
        if (!unit.isEmpty()) {
            of.put(at.substring(at.lastIndexOf('/') + 1) + "@Ccy", unit);
        }
    }

    private void closed(String at) {
        switch (at) {
            case "Ntry/NtryDtls/TxDtls" -> details.add(detail);
            case "Ntry" -> book();
            case "Bal" -> balance();
            case "" -> finish();
            default -> {
                // nothing ends with it
            }
        }
    }

    private void balance() {
        String kind = balance.getOrDefault("Tp/CdOrPrtry/Cd", "");
        Money amount = signed(balance, "a balance");
        switch (kind) {
            case "OPBD" -> opening = amount;
            // of the statement before, where none of this one stands
            case "PRCD" -> opening = opening == null ? amount : opening;
            case "CLBD" -> closing = amount;
            default -> {
                // available and forward balances are for others
            }
        }
    }

    private void book() {
        entries++;
        String state = entry.getOrDefault("Sts/Cd", entry.getOrDefault("Sts", ""));
        if (!state.equals("BOOK")) {
            return;
        }
        Money amount = signed(entry, "an entry");
        LocalDate day = day(first(entry, "BookgDt/Dt", "BookgDt/DtTm", "ValDt/Dt", "ValDt/DtTm"), "an entry");
        List<Movement> parts = parts(amount, day);
        if (parts.isEmpty()) {
            Map<String, String> only = details.size() == 1 ? details.get(0) : Map.of();
            movements.add(movement(amount, day, only));
        } else {
            movements.addAll(parts);
        }
    }

    /** The details as movements of their own, where each names its amount and they come to the entry's. */
    private List<Movement> parts(Money amount, LocalDate day) {
        if (details.size() < 2) {
            return List.of();
        }
        List<Movement> parts = new ArrayList<>();
        for (Map<String, String> one : details) {
            String text = first(one, "Amt", "AmtDtls/TxAmt/Amt");
            if (text.isEmpty()) {
                return List.of();
            }
            boolean out = one.getOrDefault("CdtDbtInd", entry.getOrDefault("CdtDbtInd", ""))
                    .equals("DBIT");
            Money part = money(text, "a detail");
            parts.add(movement(out ? part.negated() : part, day, one));
        }
        Money sum = Money.sum(parts.stream().map(Movement::amount).toList(), currency);
        return sum.equals(amount) ? parts : List.of();
    }

    private Movement movement(Money amount, LocalDate day, Map<String, String> of) {
        String text = String.join(
                        " ",
                        entry.getOrDefault("AddtlNtryInf", ""),
                        of.getOrDefault("RmtInf/Ustrd", ""),
                        of.getOrDefault("AddtlTxInf", ""))
                .strip();
        String reference = first(of, "Refs/AcctSvcrRef", "Refs/EndToEndId", "Refs/TxId");
        return new Movement(
                day,
                amount,
                first(of, "Refs/ChqNb"),
                text,
                reference.isEmpty() ? first(entry, "AcctSvcrRef", "NtryRef") : reference,
                entry.getOrDefault("RvslInd", "false").equals("true"));
    }

    private void finish() {
        String name = statement.getOrDefault("Id", "without a number");
        if (opening == null || closing == null) {
            throw refused("Statement " + name + " has no " + (opening == null ? "opening" : "closing") + " balance.");
        }
        count("TxsSummry/TtlNtries/NbOfNtries", entries, name);
        LocalDate last =
                movements.stream().map(Movement::day).max(LocalDate::compareTo).orElse(null);
        LocalDate first =
                movements.stream().map(Movement::day).min(LocalDate::compareTo).orElse(null);
        String until = first(statement, "FrToDt/ToDtTm", "FrToDt/ToDt");
        String from = first(statement, "FrToDt/FrDtTm", "FrToDt/FrDt");
        LocalDate to = until.isEmpty()
                ? last != null ? last : day(first(statement, "CreDtTm"), "a statement")
                : day(until, "a statement");
        BankReport report = new BankReport(
                first(statement, "Acct/Id/IBAN", "Acct/Id/Othr/Id"),
                first(statement, "ElctrncSeqNb", "LglSeqNb", "Id"),
                from.isEmpty() ? first != null ? first : to : day(from, "a statement"),
                to,
                opening,
                closing,
                movements);
        report.mustAddUp();
        statements.add(report);
    }

    private void count(String said, int found, String name) {
        String text = statement.getOrDefault(said, "");
        if (!text.isEmpty() && !text.equals(String.valueOf(found))) {
            throw refused(
                    "Statement " + name + " counts " + text + " entries and holds " + found + ". It may be cut off.");
        }
    }

    private Money signed(Map<String, String> of, String what) {
        String unit = of.getOrDefault("Amt@Ccy", "");
        if (!unit.equals(currency.getCurrencyCode())) {
            throw refused("It has " + what + " in " + (unit.isEmpty() ? "no currency" : unit) + ", the account is in "
                    + currency.getCurrencyCode() + ".");
        }
        Money amount = money(of.getOrDefault("Amt", ""), what);
        return switch (of.getOrDefault("CdtDbtInd", "")) {
            case "CRDT" -> amount;
            case "DBIT" -> amount.negated();
            default -> throw refused("It has " + what + " that is neither a credit nor a debit.");
        };
    }

    private Money money(String text, String what) {
        try {
            Money amount = Money.parse(text.contains(",") ? "" : text, currency);
            if (amount.isNegative()) {
                throw refused("It has " + what + " below zero, which this format does not allow.");
            }
            return amount;
        } catch (IllegalArgumentException noAmount) {
            throw refused("It has " + what + " of “" + text + "”, which is no amount.");
        }
    }

    private static LocalDate day(String text, String what) {
        try {
            return LocalDate.parse(text.length() > 10 ? text.substring(0, 10) : text);
        } catch (DateTimeException noDay) {
            throw refused("It has " + what + " without a day.");
        }
    }

    private static String first(Map<String, String> of, String... names) {
        for (String name : names) {
            String value = of.getOrDefault(name, "");
            if (!value.isEmpty()) {
                return value;
            }
        }
        return "";
    }

    private static Refusal refused(String why) {
        return Refusal.invalidField(
                "statement-unreadable", "file", "Nothing was read of this file. " + why + " Ask the bank for another.");
    }
}
