package leveltally.core.electronic;

import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import leveltally.core.Refusal;
import leveltally.core.electronic.TransferStatus.Of;
import leveltally.core.electronic.TransferStatus.Verdict;

/**
 * Reads a bank's status report of a file of credit transfers, whatever its length (ISO 20022 pain.002, in any of its versions).
 * Document types and entities are refused.
 */
public final class StatusReportReader {
    private static final String NAMESPACE = "urn:iso:std:iso:20022:tech:xsd:pain.002.001.";
    private static final int DEEPEST = 40;
    private static final int LONGEST = 2_000;

    /** Reasons banks give (ISO 20022 external status reason codes), in words. */
    private static final Map<String, String> REASONS = Map.ofEntries(
            Map.entry("AC01", "the account number is not right"),
            Map.entry("AC03", "the payee's account number is not right"),
            Map.entry("AC04", "the account is closed"),
            Map.entry("AC06", "the account is blocked"),
            Map.entry("AG01", "such payments are not allowed on this account"),
            Map.entry("AM01", "the amount is zero"),
            Map.entry("AM02", "the amount is more than the bank takes"),
            Map.entry("AM03", "the bank does not take this currency"),
            Map.entry("AM04", "there was not enough money"),
            Map.entry("AM05", "it came twice"),
            Map.entry("AM10", "the control sum is not right"),
            Map.entry("AM18", "the number of payments is not right"),
            Map.entry("BE01", "name and account do not belong together"),
            Map.entry("BE04", "the payee's address is missing"),
            Map.entry("CH03", "the execution day is too far away"),
            Map.entry("CUST", "the company asked for it"),
            Map.entry("DT01", "the day is not right"),
            Map.entry("DUPL", "it came twice"),
            Map.entry("FF01", "the file is not written as agreed"),
            Map.entry("MS02", "the payee refused it and did not say why"),
            Map.entry("MS03", "the bank did not say why"),
            Map.entry("RC01", "the bank's code is not right"),
            Map.entry("RF01", "its reference came before"),
            Map.entry("RR04", "the law asks for something more"),
            Map.entry("TM01", "it came after the bank's hour"));

    private final Consumer<TransferStatus> told;
    private final Deque<String> path = new ArrayDeque<>();
    private final Deque<Level> open = new ArrayDeque<>();
    private final StringBuilder text = new StringBuilder();
    private String message = "";

    /** What is known so far of a file, a group or a transfer. */
    private static final class Level {
        private final Of of;
        private String id = "";
        private String status = "";
        private final List<String> reasons = new ArrayList<>();

        Level(Of of) {
            this.of = of;
        }
    }

    private StatusReportReader(Consumer<TransferStatus> told) {
        this.told = told;
    }

    /**
     * @param told each status there is, a group behind its transfers; what was told is forgotten where the report is refused
     * @return the id of the message it speaks of
     * @throws Refusal when it is none, or breaks off
     */
    public static String read(InputStream content, Consumer<TransferStatus> told) {
        StatusReportReader reading = new StatusReportReader(told);
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        try {
            reading.read(factory.createXMLStreamReader(content));
        } catch (XMLStreamException broken) {
            throw refused(
                    "It is no readable XML: it breaks off, or it names entities of its own, which are not allowed.");
        }
        if (reading.message.isEmpty()) {
            throw refused("It does not say of which file it speaks.");
        }
        return reading.message;
    }

    private void read(XMLStreamReader xml) throws XMLStreamException {
        while (xml.hasNext()) {
            switch (xml.next()) {
                case XMLStreamConstants.DTD -> throw refused("It has a document type of its own (DOCTYPE).");
                case XMLStreamConstants.START_ELEMENT -> {
                    if (path.isEmpty() && !String.valueOf(xml.getNamespaceURI()).startsWith(NAMESPACE)) {
                        throw refused("It is no status report, but “" + xml.getLocalName() + "”.");
                    }
                    if (path.size() > DEEPEST) {
                        throw refused("It is nested deeper than any report is.");
                    }
                    path.addLast(xml.getLocalName());
                    text.setLength(0);
                    opened(xml.getLocalName());
                }
                case XMLStreamConstants.CHARACTERS -> {
                    if (text.length() + xml.getTextLength() > LONGEST) {
                        throw refused("A text in it is longer than any of a report is.");
                    }
                    text.append(xml.getText());
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    closed(path.removeLast(), text.toString().strip());
                    text.setLength(0);
                }
                default -> {
                    // comments and instructions say nothing
                }
            }
        }
    }

    private void opened(String element) {
        switch (element) {
            case "OrgnlGrpInfAndSts" -> open.addLast(new Level(Of.FILE));
            case "OrgnlPmtInfAndSts" -> open.addLast(new Level(Of.GROUP));
            case "TxInfAndSts" -> open.addLast(new Level(Of.TRANSFER));
            default -> {
                // what it holds is kept where it ends
            }
        }
    }

    private void closed(String element, String value) {
        Level level = open.peekLast();
        if (level == null) {
            return;
        }
        switch (element) {
            case "OrgnlMsgId" -> {
                if (level.of == Of.FILE) {
                    message = value;
                    level.id = value;
                }
            }
            case "OrgnlPmtInfId", "OrgnlEndToEndId" -> level.id = value;
            case "GrpSts", "PmtInfSts", "TxSts" -> level.status = value;
            case "Cd", "Prtry" -> {
                if (within("StsRsnInf")) {
                    level.reasons.add(REASONS.getOrDefault(value, value));
                }
            }
            case "AddtlInf" -> {
                if (within("StsRsnInf")) {
                    level.reasons.add(value);
                }
            }
            case "OrgnlGrpInfAndSts", "OrgnlPmtInfAndSts", "TxInfAndSts" -> {
                open.removeLast();
                if (!level.status.isEmpty()) {
                    told.accept(new TransferStatus(
                            level.of, level.id, Verdict.of(level.status), String.join("; ", level.reasons)));
                }
            }
            default -> {
                // the rest says nothing of what becomes of it
            }
        }
    }

    private boolean within(String element) {
        return path.contains(element);
    }

    private static Refusal refused(String why) {
        return Refusal.invalid("status-report", why + " Nothing of it was read; ask the bank for it again.");
    }
}
