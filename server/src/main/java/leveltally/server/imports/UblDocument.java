package leveltally.server.imports;

import java.io.InputStream;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import leveltally.core.imports.InvoiceDocument;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.SenderIdentifier;
import org.jspecify.annotations.Nullable;

/**
 * A UBL 2.1 Invoice or CreditNote (OASIS), read into rows of our columns: one for each of its lines, and one for each thing
 * that tax, charges, allowances, what was prepaid and rounding add or take off, so that they come to the payable amount.
 * Document types and external entities are refused; elements of other namespaces, extensions and signatures are passed over.
 */
final class UblDocument {
    private static final String UBL = "urn:oasis:names:specification:ubl:schema:xsd:";
    private static final int DEEPEST = 100;

    /** A charge or an allowance of the whole document. */
    private static final class Adjustment {
        private boolean charge;
        private String amount = "0";
    }

    /** One tax total; a document in several currencies has one for each. */
    private record Tax(String currency, String amount) {}

    private final Map<String, String> head = new HashMap<>();
    private final Set<SenderIdentifier> identifiers = new LinkedHashSet<>();
    private final List<Map<String, String>> lines = new ArrayList<>();
    private final List<Adjustment> adjustments = new ArrayList<>();
    private final List<Tax> taxes = new ArrayList<>();
    private final List<Tax> withheld = new ArrayList<>();
    private boolean credit;

    private UblDocument() {}

    /** The document; its sender is asked for the vendor's number, and for the account where no line names one. */
    static UblDocument read(InputStream file) {
        UblDocument document = new UblDocument();
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        try {
            document.read(factory.createXMLStreamReader(file));
        } catch (XMLStreamException broken) {
            throw new Unreadable("This is no readable XML: it breaks off near line "
                    + (broken.getLocation() == null ? 1 : broken.getLocation().getLineNumber())
                    + ", or it names entities of its own, which are not allowed.");
        }
        if (document.lines.isEmpty()) {
            throw new Unreadable("The document has no lines, so there is nothing to enter.");
        }
        return document;
    }

    private void read(XMLStreamReader xml) throws XMLStreamException {
        Deque<String> path = new ArrayDeque<>();
        Map<String, String> line = null;
        int foreign = 0;
        StringBuilder text = new StringBuilder();
        String scheme = "";
        while (xml.hasNext()) {
            switch (xml.next()) {
                case XMLStreamConstants.DTD ->
                    throw new Unreadable(
                            "The document has a document type of its own (DOCTYPE), which may hide other files. "
                                    + "Ask for it without.");
                case XMLStreamConstants.START_ELEMENT -> {
                    String name = xml.getLocalName();
                    if (path.isEmpty()) {
                        root(name, xml.getNamespaceURI());
                    }
                    if (path.size() > DEEPEST) {
                        throw new Unreadable("The document is nested deeper than any invoice is.");
                    }
                    path.addLast(name);
                    // whatever stands below an extension or another namespace is for others
                    boolean ours =
                            String.valueOf(xml.getNamespaceURI()).startsWith(UBL) && !name.equals("UBLExtensions");
                    if (foreign > 0 || !ours) {
                        foreign++;
                        continue;
                    }
                    text.setLength(0);
                    scheme = attribute(xml, "schemeID", "currencyID");
                    if (path.size() == 2) {
                        line = opened(name, line);
                    }
                }
                case XMLStreamConstants.CHARACTERS -> {
                    if (foreign == 0) {
                        text.append(xml.getText());
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    if (foreign > 0) {
                        foreign--;
                    } else if (!text.toString().isBlank()) {
                        keep(below(path), text.toString().strip(), scheme, line);
                    }
                    text.setLength(0);
                    path.removeLast();
                    if (path.size() == 1) {
                        line = null;
                    }
                }
                default -> {
                    // comments and instructions say nothing
                }
            }
        }
    }

    private @Nullable Map<String, String> opened(String name, @Nullable Map<String, String> line) {
        switch (name) {
            case "InvoiceLine", "CreditNoteLine" -> {
                if (lines.size() >= InvoiceDocument.MOST_ROWS) {
                    throw new Unreadable("The document has more than 10,000 lines, more than one document can have.");
                }
                Map<String, String> next = new HashMap<>();
                lines.add(next);
                return next;
            }
            case "AllowanceCharge" -> adjustments.add(new Adjustment());
            default -> {
                // the other parts are read by their elements
            }
        }
        return line;
    }

    private static String attribute(XMLStreamReader xml, String... names) {
        for (String name : names) {
            String value = xml.getAttributeValue(null, name);
            if (value != null) {
                return value.strip();
            }
        }
        return "";
    }

    private static String below(Deque<String> path) {
        List<String> parts = new ArrayList<>(path);
        return String.join("/", parts.subList(1, parts.size()));
    }

    private void root(String name, @Nullable String namespace) {
        boolean invoice = name.equals("Invoice") && (UBL + "Invoice-2").equals(namespace);
        credit = name.equals("CreditNote") && (UBL + "CreditNote-2").equals(namespace);
        if (!invoice && !credit) {
            String shown = name.length() > 40 ? name.substring(0, 40) + "…" : name;
            throw new Unreadable("This is neither a UBL Invoice nor a UBL CreditNote, but “" + shown + "”.");
        }
    }

    private void keep(String at, String text, String attribute, @Nullable Map<String, String> line) {
        if (line != null) {
            switch (at) {
                case "InvoiceLine/LineExtensionAmount", "CreditNoteLine/LineExtensionAmount" ->
                    line.put("amount", text);
                case "InvoiceLine/AccountingCost", "CreditNoteLine/AccountingCost" -> line.put("account", text);
                default -> {
                    // what is bought, how many and at which price is for others
                }
            }
            return;
        }
        if (party(at, text, attribute) || total(at, text, attribute)) {
            return;
        }
        String name = switch (at) {
            case "ID" -> "reference";
            case "IssueDate" -> "invoice_date";
            case "InvoiceTypeCode", "CreditNoteTypeCode" -> "type";
            case "DocumentCurrencyCode" -> "currency";
            case "AccountingCost" -> "account";
            case "DueDate", "PaymentMeans/PaymentDueDate", "PaymentTerms/PaymentDueDate" -> "due_date";
            case "PaymentTerms/Note" -> "terms";
            case "PaymentTerms/SettlementDiscountPercent" -> "discount";
            case "PaymentTerms/SettlementPeriod/EndDate" -> "discount_until";
            default -> "";
        };
        if (!name.isEmpty()) {
            head.putIfAbsent(name, text);
        }
    }

    private boolean party(String at, String text, String schemeId) {
        String party = "AccountingSupplierParty/";
        String scheme = switch (at) {
            case "AccountingSupplierParty/CustomerAssignedAccountID" -> UblParty.NUMBER;
            case "AccountingSupplierParty/Party/EndpointID" -> UblParty.ENDPOINT;
            case "AccountingSupplierParty/Party/PartyIdentification/ID" -> UblParty.IDENTIFICATION;
            case "AccountingSupplierParty/Party/PartyTaxScheme/CompanyID" -> UblParty.TAX;
            case "AccountingSupplierParty/Party/PartyLegalEntity/CompanyID" -> UblParty.LEGAL;
            case "AccountingSupplierParty/Party/PartyName/Name",
                    "AccountingSupplierParty/Party/PartyLegalEntity/RegistrationName" -> UblParty.NAME;
            case "PaymentMeans/PayeeFinancialAccount/ID" -> UblParty.ACCOUNT;
            default -> "";
        };
        if (scheme.isEmpty()) {
            return at.startsWith(party);
        }
        if (scheme.equals(UblParty.NAME)) {
            head.putIfAbsent("sender", text);
        }
        boolean numbered = !schemeId.isEmpty() && !scheme.equals(UblParty.ACCOUNT);
        identifiers.add(SenderIdentifier.of(numbered ? scheme + " " + schemeId : scheme, text));
        return true;
    }

    private boolean total(String at, String text, String currency) {
        switch (at) {
            case "LegalMonetaryTotal/PayableAmount" -> head.put("payable", text);
            case "LegalMonetaryTotal/PrepaidAmount" -> head.put("prepaid", text);
            case "LegalMonetaryTotal/PayableRoundingAmount" -> head.put("rounding", text);
            case "TaxTotal/TaxAmount" -> taxes.add(new Tax(currency, text));
            case "WithholdingTaxTotal/TaxAmount" -> withheld.add(new Tax(currency, text));
            case "AllowanceCharge/ChargeIndicator" ->
                adjustments.get(adjustments.size() - 1).charge = text.equals("true") || text.equals("1");
            case "AllowanceCharge/Amount" -> adjustments.get(adjustments.size() - 1).amount = text;
            default -> {
                return false;
            }
        }
        return true;
    }

    UblParty party() {
        return UblParty.of(head.getOrDefault("sender", "a sender without a name"), identifiers);
    }

    /**
     * The rows, which come to the payable amount.
     *
     * @param vendor the vendor's number
     * @param account the code where the document names none
     * @throws Unreadable when the payable amount does not follow from the lines
     */
    List<Map<String, String>> rows(String vendor, Function<String, String> account) {
        String named = head.getOrDefault("account", "");
        String usual = account.apply(named);
        List<Map<String, String>> rows = new ArrayList<>();
        BigDecimal sum = BigDecimal.ZERO;
        for (Map<String, String> line : lines) {
            BigDecimal amount = amount(line.getOrDefault("amount", ""), "a line");
            sum = sum.add(amount);
            String own = line.getOrDefault("account", "");
            rows.add(row(vendor, amount, own.isEmpty() ? usual : account.apply(own)));
        }
        BigDecimal linesOnly = sum;
        for (Adjustment one : adjustments) {
            BigDecimal amount = amount(one.amount, "a charge or allowance");
            sum = add(rows, vendor, usual, sum, one.charge ? amount : amount.negate());
        }
        sum = add(rows, vendor, usual, sum, tax(taxes));
        sum = add(rows, vendor, usual, sum, tax(withheld).negate());
        sum = add(
                rows,
                vendor,
                usual,
                sum,
                amount(head.getOrDefault("prepaid", "0"), "what was prepaid").negate());
        sum = add(rows, vendor, usual, sum, amount(head.getOrDefault("rounding", "0"), "the rounding"));
        BigDecimal payable = amount(head.getOrDefault("payable", ""), "the payable amount");
        if (payable.compareTo(sum) != 0) {
            throw new Unreadable("The payable amount does not follow from the lines: it says " + payable.toPlainString()
                    + ", while the lines come to " + linesOnly.toPlainString()
                    + " and, with charges, allowances, tax, prepaid and rounding, to " + sum.toPlainString()
                    + ". Ask for a document that adds up.");
        }
        return rows;
    }

    private BigDecimal add(
            List<Map<String, String>> rows, String vendor, String account, BigDecimal sum, BigDecimal amount) {
        if (amount.signum() != 0) {
            rows.add(row(vendor, amount, account));
        }
        return sum.add(amount);
    }

    /** Of the document's own currency, where totals in several are named. */
    private BigDecimal tax(List<Tax> totals) {
        String own = head.getOrDefault("currency", "");
        return totals.stream()
                .filter(tax -> tax.currency().isEmpty()
                        || own.isEmpty()
                        || tax.currency().equals(own))
                .map(tax -> amount(tax.amount(), "the tax"))
                .reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    private Map<String, String> row(String vendor, BigDecimal amount, String account) {
        Map<String, String> row = new HashMap<>();
        row.put("vendor", vendor);
        row.put("kind", credit || "381".equals(head.get("type")) ? "credit" : "invoice");
        for (String name : List.of("reference", "invoice_date", "currency", "due_date")) {
            row.put(name, head.getOrDefault(name, ""));
        }
        row.put("terms", terms());
        row.put(
                "amount",
                amount.stripTrailingZeros().scale() < 2
                        ? amount.setScale(2).toPlainString()
                        : amount.stripTrailingZeros().toPlainString());
        row.put("account", account);
        return row;
    }

    /** Terms in our words where the document's can be said in them; whatever else it says is for people. */
    private String terms() {
        LocalDate dated = day(head.get("invoice_date"));
        LocalDate due = day(head.get("due_date"));
        LocalDate until = day(head.get("discount_until"));
        String percent = head.getOrDefault("discount", "");
        if (dated != null && until != null && percent.matches("\\d{1,2}(\\.\\d{1,3})?") && !until.isBefore(dated)) {
            long net = due == null ? ChronoUnit.DAYS.between(dated, until) : ChronoUnit.DAYS.between(dated, due);
            String days = String.valueOf(ChronoUnit.DAYS.between(dated, until));
            return net < 0 || net > 999 || days.length() > 3 ? "" : percent + "% " + days + ", net " + net;
        }
        try {
            return Terms.read(head.getOrDefault("terms", "")).inWords();
        } catch (IllegalArgumentException otherWords) {
            return "";
        }
    }

    private static @Nullable LocalDate day(@Nullable String text) {
        try {
            return text == null ? null : LocalDate.parse(text);
        } catch (DateTimeException noDay) {
            return null;
        }
    }

    private static BigDecimal amount(String text, String what) {
        if (!text.matches("[+-]?\\d{1,15}(\\.\\d{1,10})?")) {
            throw new Unreadable("“" + (text.length() > 30 ? text.substring(0, 30) + "…" : text)
                    + "” is no amount, but " + what + " has it.");
        }
        return new BigDecimal(text);
    }
}
