package leveltally.browser;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;

/** A run onto paper as it goes wrong: in parts, by two people, through a jam; and its payees are told by mail. */
class PaperTest {
    private static final Desk DESK = Desk.shared();

    private static void numberInTheTray() {
        DESK.type(DESK.find(By.cssSelector("[role=dialog] label b")).getText());
    }

    private static void wishAdviceByMail() {
        DESK.go("/vendors?text=Redshank");
        DESK.pick("Redshank Refrigeration");
        DESK.press(Keys.ENTER);
        DESK.click("Change these…");
        DESK.choose("Remittance advice", "as a PDF by mail");
        // without an address it is refused, and nothing typed is lost
        DESK.confirm();
        DESK.see("Advice by mail needs an address");
        DESK.fill("Mail address for advice", "desk@redshank.example");
        DESK.confirmed();
        DESK.see("to desk@redshank.example");
    }

    @Test
    void inPartsByTwoPeopleThroughAJamAndToldByMail() {
        DESK.sitDown("Ines Okafor");
        wishAdviceByMail();
        String batch = ApprovalTest.batchOf(
                List.of("Redshank Refrigeration", "Quayside Canteen Equipment", "Kelp & Barley Bakehouse"),
                "In parts",
                true);
        for (String approver : List.of("Maren Lindqvist", "Aldo Ferreira")) {
            ApprovalTest.finish("In parts", approver);
        }

        DESK.sitDown("Ines Okafor");
        DESK.go("/print/" + batch);
        DESK.click("Take the turn");
        DESK.confirmed();
        // somebody else sees whose turn it is, and whoever has it resumes
        DESK.sitDown("Tomas Brandt");
        DESK.go("/print/" + batch);
        DESK.see("Ines Okafor has the turn");
        DESK.sitDown("Ines Okafor");
        DESK.go("/print/" + batch);
        DESK.press(Keys.HOME);
        DESK.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        DESK.click("Print the 2 selected");
        numberInTheTray();
        DESK.click("stand-in");
        new Select(DESK.find(By.cssSelector("[role=dialog] select"))).selectByValue("JAM");
        DESK.confirmed();
        DESK.see("torn");
        DESK.click("1 printed well: all good");
        DESK.see("1 without an answer");
        DESK.pick("torn");
        DESK.click("Spoiled…");
        DESK.fill("What happened", "torn in the jam");
        DESK.confirmed();
        DESK.see("2 to number");

        // the rest by another, who finds it as it stands
        DESK.sitDown("Tomas Brandt");
        DESK.go("/print/" + batch);
        DESK.see("2 to number");
        DESK.click("Take the turn");
        DESK.confirmed();
        DESK.click("Print 2 checks");
        numberInTheTray();
        DESK.confirmed();
        DESK.click("2 printed well: all good");
        DESK.click("go to posting");
        DESK.click("Post ");
        DESK.confirmed();
        DESK.see("In parts, posted");

        DESK.go("/mail?whose=PAYEES");
        DESK.until(
                "its mail is sent",
                () -> DESK.rows().stream()
                        .anyMatch(row -> row.contains("Redshank Refrigeration") && row.contains("sent")));
        DESK.pick("Redshank Refrigeration");
        DESK.see("desk@redshank.example");
        DESK.see("is listed in the PDF that comes with this mail");
        DESK.click("It came back…");
        DESK.fill("What was said", "no such mailbox");
        DESK.confirmed();
        DESK.see("came back");
        DESK.click("The check, and to send it again");
        DESK.click("Send it again by mail…");
        DESK.fill("To", "books@redshank.example");
        DESK.confirmed();
        DESK.see("books@redshank.example: ");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }
}
