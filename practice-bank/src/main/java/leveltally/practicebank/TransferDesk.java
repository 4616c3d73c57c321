package leveltally.practicebank;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.SAXException;

/** How the bank reads a file of credit transfers: whole, and everything it says of itself added up again. */
final class TransferDesk {
    private final byte[] content;
    private final List<PaidEntry> entries = new ArrayList<>();
    private String message = "unknown";

    TransferDesk(byte[] content) {
        this.content = content;
    }

    String message() {
        return message;
    }

    List<PaidEntry> entries() {
        return entries;
    }

    void read() throws Unreadable {
        Element root = root();
        if (!String.valueOf(root.getNamespaceURI()).startsWith("urn:iso:std:iso:20022:tech:xsd:pain.001.001.")) {
            throw new Unreadable("The file is no initiation of credit transfers");
        }
        Element head = only(root, "GrpHdr");
        message = text(head, "MsgId");
        BigDecimal all = BigDecimal.ZERO;
        NodeList groups = root.getElementsByTagNameNS("*", "PmtInf");
        for (int i = 0; i < groups.getLength(); i++) {
            Element group = (Element) groups.item(i);
            BigDecimal sum = group(group);
            agree(group, sum, group.getElementsByTagNameNS("*", "CdtTrfTxInf").getLength());
            all = all.add(sum);
        }
        agree(head, all, entries.size());
    }

    private BigDecimal group(Element group) throws Unreadable {
        LocalDate day;
        try {
            day = LocalDate.parse(text(group, "ReqdExctnDt").strip());
        } catch (DateTimeException none) {
            throw new Unreadable("A group does not say on which day it is paid");
        }
        BigDecimal sum = BigDecimal.ZERO;
        NodeList transfers = group.getElementsByTagNameNS("*", "CdtTrfTxInf");
        for (int i = 0; i < transfers.getLength(); i++) {
            Element one = (Element) transfers.item(i);
            BigDecimal amount = new BigDecimal(text(one, "InstdAmt"));
            sum = sum.add(amount);
            String id = text(one, "EndToEndId");
            entries.add(new PaidEntry(
                    "",
                    text(only(one, "CdtrAcct"), "Id").strip(),
                    false,
                    amount.unscaledValue().longValueExact(),
                    id,
                    text(only(one, "Cdtr"), "Nm"),
                    id,
                    "",
                    day));
        }
        return sum;
    }

    private void agree(Element says, BigDecimal sum, int count) throws Unreadable {
        if (Integer.parseInt(text(says, "NbOfTxs")) != count) {
            throw new Unreadable("The file says of its transfers " + text(says, "NbOfTxs") + ", there are " + count);
        }
        if (new BigDecimal(text(says, "CtrlSum")).compareTo(sum) != 0) {
            throw new Unreadable("The file says of its sum " + text(says, "CtrlSum") + ", it comes to " + sum);
        }
    }

    private Element root() throws Unreadable {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newDefaultNSInstance();
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            return factory.newDocumentBuilder()
                    .parse(new ByteArrayInputStream(content))
                    .getDocumentElement();
        } catch (SAXException | IOException | ParserConfigurationException broken) {
            throw new Unreadable("The file is no readable XML");
        }
    }

    private static Element only(Element within, String name) throws Unreadable {
        NodeList found = within.getElementsByTagNameNS("*", name);
        if (found.getLength() == 0) {
            throw new Unreadable("The file does not say " + name);
        }
        return (Element) found.item(0);
    }

    private static String text(Element within, String name) throws Unreadable {
        return only(within, name).getTextContent();
    }
}
