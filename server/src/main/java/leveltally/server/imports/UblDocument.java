package leveltally.server.imports;

import java.io.InputStream;
import java.math.BigDecimal;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * A UBL 2.1 Invoice or CreditNote (OASIS), read into rows of our columns: one for each of its lines, and one for what tax,
 * charges and allowances add to them. Document types and external entities are refused.
 */
final class UblDocument {
    private static final String INVOICE = "urn:oasis:names:specification:ubl:schema:xsd:Invoice-2";
    private static final String CREDIT = "urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2";
    private static final int DEEPEST = 60;

    private final Map<String, String> head = new HashMap<>();
    private final List<Map<String, String>> lines = new ArrayList<>();
    private boolean credit;

    private UblDocument() {}

    /**
     * The rows of a document; the currency it is in stands under {@code currency}.
     *
     * @param accountFor the account's code where the document names none
     * @throws Unreadable when it is no such document
     */
    static List<Map<String, String>> rows(InputStream file, java.util.function.UnaryOperator<String> accountFor) {
        UblDocument document = new UblDocument();
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(file);
            document.read(xml);
        } catch (XMLStreamException broken) {
            throw new Unreadable("This is no readable XML: it breaks off near line "
                    + (broken.getLocation() == null ? 1 : broken.getLocation().getLineNumber())
                    + ", or it names entities of its own, which are not allowed.");
        }
        return document.rows(accountFor);
    }

    private void read(XMLStreamReader xml) throws XMLStreamException {
        Deque<String> path = new ArrayDeque<>();
        Map<String, String> line = null;
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
                    if (name.equals("InvoiceLine") || name.equals("CreditNoteLine")) {
                        line = new HashMap<>();
                        lines.add(line);
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    String name = path.removeLast();
                    if (name.equals("InvoiceLine") || name.equals("CreditNoteLine")) {
                        line = null;
                    }
                }
                case XMLStreamConstants.CHARACTERS -> {
                    if (!xml.isWhiteSpace()) {
                        keep(String.join("/", path), xml.getText().strip(), line);
                    }
                }
                default -> {
                    // comments and instructions say nothing
                }
            }
        }
    }

    private void root(String name, String namespace) {
        boolean invoice = name.equals("Invoice") && INVOICE.equals(namespace);
        credit = name.equals("CreditNote") && CREDIT.equals(namespace);
        if (!invoice && !credit) {
            throw new Unreadable("This is neither a UBL Invoice nor a UBL CreditNote, but “" + name + "”.");
        }
    }

    private void keep(String path, String text, @org.jspecify.annotations.Nullable Map<String, String> line) {
        String root = credit ? "CreditNote/" : "Invoice/";
        String below = path.startsWith(root) ? path.substring(root.length()) : path;
        if (line != null) {
            if (below.endsWith("Line/LineExtensionAmount")) {
                line.putIfAbsent("amount", text);
            } else if (below.endsWith("Line/AccountingCost")) {
                line.putIfAbsent("account", text);
            }
            return;
        }
        switch (below) {
            case "ID" -> head.putIfAbsent("reference", text);
            case "IssueDate" -> head.putIfAbsent("invoice_date", text);
            case "DocumentCurrencyCode" -> head.putIfAbsent("currency", text);
            case "AccountingCost" -> head.putIfAbsent("account", text);
            case "AccountingSupplierParty/CustomerAssignedAccountID",
                    "AccountingSupplierParty/Party/PartyIdentification/ID" -> head.putIfAbsent("vendor", text);
            case "LegalMonetaryTotal/PayableAmount" -> head.putIfAbsent("payable", text);
            default -> {
                // everything else is for others
            }
        }
    }

    private List<Map<String, String>> rows(java.util.function.UnaryOperator<String> accountFor) {
        BigDecimal sum = BigDecimal.ZERO;
        List<Map<String, String>> rows = new ArrayList<>();
        for (Map<String, String> line : lines) {
            sum = sum.add(amount(line.getOrDefault("amount", "")));
            rows.add(row(line.getOrDefault("account", ""), line.getOrDefault("amount", ""), accountFor));
        }
        if (rows.isEmpty()) {
            throw new Unreadable("The document has no lines, so there is nothing to enter.");
        }
        BigDecimal payable = head.containsKey("payable") ? amount(head.get("payable")) : sum;
        BigDecimal rest = payable.subtract(sum);
        if (rest.signum() > 0) {
            rows.add(row(rows.get(0).get("account"), rest.toPlainString(), accountFor));
        } else if (rest.signum() < 0) {
            // an allowance lowers the first line
            Map<String, String> first = rows.get(0);
            first.put("amount", amount(first.get("amount")).add(rest).toPlainString());
        }
        return rows;
    }

    private Map<String, String> row(
            String account, String amount, java.util.function.UnaryOperator<String> accountFor) {
        Map<String, String> row = new HashMap<>();
        for (String name : List.of("vendor", "reference", "invoice_date", "currency")) {
            row.put(name, head.getOrDefault(name, ""));
        }
        row.put("kind", credit ? "credit" : "invoice");
        row.put("amount", amount);
        String named = account.isEmpty() ? head.getOrDefault("account", "") : account;
        row.put("account", named.isEmpty() ? accountFor.apply(row.get("vendor")) : named);
        return row;
    }

    private static BigDecimal amount(String text) {
        try {
            if (text.length() < 30) {
                return new BigDecimal(text);
            }
        } catch (NumberFormatException noNumber) {
            // said below
        }
        throw new Unreadable("“" + text.substring(0, Math.min(30, text.length())) + "” is no amount.");
    }
}
