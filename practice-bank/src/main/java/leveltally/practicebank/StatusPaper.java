package leveltally.practicebank;

import java.io.ByteArrayOutputStream;
import java.time.LocalDate;
import java.util.List;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** What the bank says of a file of transfers (ISO 20022 pain.002.001.10). */
final class StatusPaper {
    private static final String NAMESPACE = "urn:iso:std:iso:20022:tech:xsd:pain.002.001.10";

    private StatusPaper() {}

    /** A transfer that is not paid, and the code of the reason. */
    record Refused(String id, String code) {}

    static byte[] written(String message, LocalDate day, String status, String reason, List<Refused> refused) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(bytes, "UTF-8");
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("Document");
            xml.writeDefaultNamespace(NAMESPACE);
            xml.writeStartElement("CstmrPmtStsRpt");
            xml.writeStartElement("GrpHdr");
            text(xml, "MsgId", "ST-" + message.substring(0, Math.min(20, message.length())));
            text(xml, "CreDtTm", day + "T09:00:00");
            xml.writeEndElement();
            xml.writeStartElement("OrgnlGrpInfAndSts");
            text(xml, "OrgnlMsgId", message);
            text(xml, "OrgnlMsgNmId", "pain.001");
            text(xml, "GrpSts", status);
            reason(xml, reason);
            xml.writeEndElement();
            if (!refused.isEmpty()) {
                xml.writeStartElement("OrgnlPmtInfAndSts");
                text(xml, "OrgnlPmtInfId", message + "-1");
                for (Refused one : refused) {
                    xml.writeStartElement("TxInfAndSts");
                    text(xml, "OrgnlEndToEndId", one.id());
                    text(xml, "TxSts", "RJCT");
                    reason(xml, one.code());
                    xml.writeEndElement();
                }
                xml.writeEndElement();
            }
            xml.writeEndDocument();
            xml.close();
        } catch (XMLStreamException inMemory) {
            throw new IllegalStateException(inMemory);
        }
        return bytes.toByteArray();
    }

    private static void reason(XMLStreamWriter xml, String code) throws XMLStreamException {
        if (!code.isEmpty()) {
            xml.writeStartElement("StsRsnInf");
            xml.writeStartElement("Rsn");
            text(xml, "Cd", code);
            xml.writeEndElement();
            xml.writeEndElement();
        }
    }

    private static void text(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
