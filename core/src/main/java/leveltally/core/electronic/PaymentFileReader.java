package leveltally.core.electronic;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import leveltally.core.vendors.PaymentMethod;

/** Reads back what our own files of payments say, payment by payment and whatever their length, so that bytes are compared and not beliefs. */
public final class PaymentFileReader {
    /** Credits to checking and savings accounts; what balances a batch and what only announces an account is no payment. */
    private static final Set<String> CREDITS = Set.of("22", "32");

    private PaymentFileReader() {}

    /** @param said each payment in the order of the file */
    public static void read(PaymentMethod method, InputStream content, Consumer<SaidPayment> said) throws IOException {
        switch (method) {
            case ACH -> readAch(content, said);
            case CREDIT_TRANSFER -> readTransfers(content, said);
            default -> throw new IllegalArgumentException(method + " is carried by no file");
        }
    }

    private static void readAch(InputStream content, Consumer<SaidPayment> said) throws IOException {
        BufferedReader lines = new BufferedReader(new InputStreamReader(content, StandardCharsets.US_ASCII));
        String entryClass = "";
        for (String line = lines.readLine(); line != null; line = lines.readLine()) {
            if (line.startsWith("5")) {
                entryClass = line.substring(50, 53);
            } else if (line.startsWith("6") && CREDITS.contains(line.substring(1, 3))) {
                boolean many = entryClass.equals(EntryClass.CTX.name());
                said.accept(new SaidPayment(
                        line.substring(39, 54).strip(),
                        Long.parseLong(line.substring(29, 39)),
                        line.substring(12, 29).strip(),
                        (many ? line.substring(58, 74) : line.substring(54, 76)).strip()));
            }
        }
    }

    private static void readTransfers(InputStream content, Consumer<SaidPayment> said) throws IOException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(content);
            Deque<String> path = new ArrayDeque<>();
            StringBuilder text = new StringBuilder();
            Said one = new Said();
            while (xml.hasNext()) {
                switch (xml.next()) {
                    case XMLStreamConstants.START_ELEMENT -> {
                        path.addLast(xml.getLocalName());
                        text.setLength(0);
                    }
                    case XMLStreamConstants.CHARACTERS -> text.append(xml.getText());
                    case XMLStreamConstants.END_ELEMENT -> {
                        String element = path.removeLast();
                        if (element.equals("CdtTrfTxInf")) {
                            said.accept(one.done());
                            one = new Said();
                        } else {
                            one.take(element, path, text.toString());
                        }
                        text.setLength(0);
                    }
                    default -> {
                        // nothing else says anything
                    }
                }
            }
        } catch (XMLStreamException broken) {
            throw new IOException(broken);
        }
    }

    /** What is known so far of one transfer. */
    private static final class Said {
        private String called = "";
        private BigDecimal amount = BigDecimal.ZERO;
        private String account = "";
        private String payee = "";

        void take(String element, Deque<String> within, String text) {
            switch (element) {
                case "EndToEndId" -> called = text;
                case "InstdAmt" -> amount = new BigDecimal(text);
                case "IBAN", "Id" -> {
                    if (within.contains("CdtrAcct")) {
                        account = text.isEmpty() ? account : text;
                    }
                }
                case "Nm" -> {
                    if ("Cdtr".equals(within.peekLast())) {
                        payee = text;
                    }
                }
                default -> {
                    // the rest is no part of what is compared
                }
            }
        }

        SaidPayment done() {
            return new SaidPayment(called, amount.unscaledValue().longValueExact(), account, payee);
        }
    }
}
