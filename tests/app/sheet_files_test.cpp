// Sheets on paper: what is drawn, and the files that leave.

#include <QPrintDialog>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include <QSvgRenderer>

#include "app/base/open_project.h"
#include "app/sheet/drawing_file.h"
#include "app/sheet/sheet_batch.h"
#include "app/sheet/sheet_output.h"
#include "app/sheet/text_recorder.h"
#include "core/objects/line.h"
#include "sheets_site.h"
#include "support/file_limit.h"
#include "support/places.h"

namespace erdwerk::app {
namespace {

using objects::PlanFrame;
using test::frameOf;

class SheetFiles : public SheetsSite {
protected:
    /// A page as poppler draws it, ten dots to a millimetre.
    static QImage drawnPage(const QString& pdf, int page, const QString& as) {
        const QString number = QString::number(page);
        output(QStringLiteral("pdftoppm"), {QStringLiteral("-r"), QStringLiteral("254"), QStringLiteral("-f"),
                                            number, QStringLiteral("-l"), number, QStringLiteral("-png"),
                                            QStringLiteral("-singlefile"), pdf, as});
        return QImage(as + QStringLiteral(".png"));
    }
};

TEST_F(SheetFiles, ADamagedPictureIsNotTaken) {
    std::ofstream(folder / "cut.png") << "\x89PNG\r\n\x1a\n and no more";
    EXPECT_FALSE(window->commands<SheetCommands>().takeArtwork(path("cut.png")));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("damaged")));
    EXPECT_TRUE(doc().all<objects::Artwork>().empty());
}

TEST_F(SheetFiles, TheLegendAndTheKeyPlanSayWhatIsOnTheSheets) {
    const ObjectId works = named<objects::Sheet>("Earthworks");
    const auto words = [&](ObjectId id) {
        TextRecorder recorder(QSizeF(420, 297) * 10);
        QPainter painter(&recorder);
        paintSheet(painter, *window->session().snapshot(), id, 10);
        painter.end();
        QStringList out;
        for (const auto& written : recorder.written()) out << written.text;
        return out;
    };
    for (const char* sign :
         {"Toe", "Field lines", "Parcel boundary", "Daylight of an earthwork", "Index contour"})
        EXPECT_TRUE(words(works).contains(QString::fromUtf8(sign))) << sign;
    // What a plan does not show has no sign.
    const std::size_t frame = frameOf<PlanFrame>(*doc().get<objects::Sheet>(works));
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("off"), operations::setFramePart(works, frame, objects::PlanPart::Linework, false)));
    window->settle();
    EXPECT_FALSE(words(works).contains(QStringLiteral("Field lines")));
    EXPECT_TRUE(words(works).contains(QStringLiteral("Parcel boundary")));
    // The key plan numbers the plans of all three sheets.
    const auto key = words(named<objects::Sheet>("Starling Lane"));
    for (const char* number : {"1", "2", "3"}) EXPECT_TRUE(key.contains(QString::fromUtf8(number))) << number;
}

TEST_F(SheetFiles, ThickerLinesAreThickerOnPaper) {
    const auto ink = [&] {
        window->settle();
        QImage image(420 * 4, 297 * 4, QImage::Format_RGB32);
        QPainter painter(&image);
        paintSheet(painter, *window->session().snapshot(), sheet, 4);
        painter.end();
        int out = 0;
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x) out += image.pixelColor(x, y) == theme::parcel;
        return out;
    };
    const int before = ink();
    ASSERT_TRUE(window->session().edit(QStringLiteral("thick"),
                                       operations::setWeight(sheet, &objects::LineWeights::records, 1.5)));
    EXPECT_GT(ink(), 2 * before);
}

/// As PDF and as SVG: said with the file's name, the file that was there whole, nothing beside it.
TEST_F(SheetFiles, AFullDiskIsSaidAndTheFileThatWasThereStays) {
    for (const char* name : {"full.pdf", "full.svg"}) {
        ASSERT_TRUE(writeSheets(path(name), *window->session().snapshot(), {sheet}));
        const std::string before = test::contentOf(folder / name);
        for (const std::size_t room : {std::size_t{0}, std::size_t{5000}, before.size() / 2}) {
            const test::FileLimit limit(room);
            const auto done = writeSheets(path(name), *window->session().snapshot(), {sheet});
            ASSERT_FALSE(done) << name << " " << room;
            EXPECT_NE(done.error().message().find(name), std::string::npos) << done.error().message();
        }
        EXPECT_EQ(test::contentOf(folder / name), before);
    }
    EXPECT_EQ(QDir(QString::fromStdString(folder / ""))
                  .entryList({QStringLiteral("*full*")}, QDir::Files | QDir::Hidden)
                  .size(),
              2);
}

TEST_F(SheetFiles, DrawingsThatAreStoppedLeaveNone) {
    int told = 0;
    const auto done = writeSheets(path("many.svg"), *window->session().snapshot(), {sheet, sheet, sheet},
                                  [&](std::size_t, const QString&) { return ++told < 3; });
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::Cancelled);
    EXPECT_TRUE(QDir(QString::fromStdString(folder / "")).entryList({QStringLiteral("many*")}).isEmpty());
}

TEST_F(SheetFiles, EveryKindOfFrameIsAddedAndDrawn) {
    ASSERT_TRUE(window->commands<SheetCommands>().takeArtwork(QString::fromUtf8(test::demoFolder) +
                                                              QStringLiteral("/title-block.svg")));
    const std::size_t before = now().frames.size();
    for (const char* kind : {"plan", "profile", "section", "table", "description", "legend", "key-plan",
                             "scale", "picture", "title-block", "notes"}) {
        run((std::string("frame-") + kind).c_str());
        EXPECT_EQ(objects::frameKind(now().frames.back().content).id, kind);
        ASSERT_TRUE(canvas()->selectedFrame());
        EXPECT_EQ(*canvas()->selectedFrame(), now().frames.size() - 1);
    }
    EXPECT_EQ(now().frames.size(), before + 11);
    window->settle();
    // Each leaves ink of its own: nothing in it is a warning in madder.
    for (std::size_t i = before; i < now().frames.size(); ++i) {
        QImage image(420 * 4, 297 * 4, QImage::Format_ARGB32);
        image.fill(Qt::white);
        QPainter painter(&image);
        SheetShown shown;
        paintFrame({painter, *window->session().snapshot(), sheet, 4}, i, shown);
        painter.end();
        int ink = 0;
        int madder = 0;
        for (int y = 0; y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x) {
                ink += image.pixel(x, y) != qRgb(255, 255, 255);
                madder += image.pixelColor(x, y) == theme::madder;
            }
        EXPECT_GT(ink, 100) << objects::frameKind(now().frames[i].content).id;
        EXPECT_EQ(madder, 0) << objects::frameKind(now().frames[i].content).id;
    }
}

/// The whole set as one PDF, opened by poppler: pages, words, layers, no raster; nothing lies on another.
TEST_F(SheetFiles, TheSetIsWrittenAsideWithLayersThatAreSwitched) {
    std::vector<ObjectId> all = doc().all<objects::Sheet>();
    ASSERT_EQ(all.size(), 3U);
    for (const ObjectId id : all)
        EXPECT_EQ(textsOn(*window->session().snapshot(), id).overlaps, 0U) << doc().nameOf(id);
    const QString pdf = path("set.pdf");
    window->commands<SheetCommands>().writeSheets(pdf, all);
    QTRY_VERIFY_WITH_TIMEOUT(QFileInfo::exists(pdf), 60000);
    QTRY_VERIFY(window->prompt()->text().contains(QStringLiteral("set.pdf")));
    const QString info = output(QStringLiteral("pdfinfo"), {pdf});
    EXPECT_TRUE(info.contains(QRegularExpression(QStringLiteral("Pages: +3\n")))) << info.toStdString();
    const QString words =
        output(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), pdf, QStringLiteral("-")});
    for (const char* word : {"Point of Beginning", "Starling Lane: plan and profile", "1/3", "3/3", "cut"})
        EXPECT_TRUE(words.contains(QString::fromUtf8(word), Qt::CaseInsensitive)) << word;
    EXPECT_EQ(output(QStringLiteral("pdfimages"), {QStringLiteral("-list"), pdf}).count(QLatin1Char('\n')),
              2);
    // Layers by name, once each, although three pages have them.
    const QString inside = output(
        QStringLiteral("qpdf"),
        {QStringLiteral("--qdf"), QStringLiteral("--object-streams=disable"), pdf, QStringLiteral("-")});
    for (const char* layer : {"Ground", "Linework", "Labels", "Profile", "Cross-sections", "Title block"})
        EXPECT_EQ(inside.count(QStringLiteral("/Name (%1)").arg(QString::fromUtf8(layer))), 1) << layer;
    EXPECT_TRUE(inside.contains(QStringLiteral("/OCProperties")));
}

TEST_F(SheetFiles, WritingThatIsStoppedLeavesNoFile) {
    const QString pdf = path("stopped.pdf");
    std::vector<ObjectId> many(40, sheet);
    window->commands<SheetCommands>().writeSheets(pdf, many);
    window->commands<SheetCommands>().batch()->stop();
    QTRY_VERIFY_WITH_TIMEOUT(window->prompt()->text().contains(QStringLiteral("Not written")), 60000);
    EXPECT_FALSE(QFileInfo::exists(pdf));
    EXPECT_TRUE(QDir(QString::fromStdString(folder / "")).entryList({QStringLiteral("*.laid*")}).isEmpty());
    window->commands<SheetCommands>().writeSheets(QStringLiteral("/proc/no.pdf"), {sheet});
    QTRY_VERIFY_WITH_TIMEOUT(window->prompt()->text().contains(QStringLiteral("/proc/no.pdf")), 60000);
}

TEST_F(SheetFiles, AnOwnTitleBlockStandsInAndWhatIsNoneIsRefused) {
    std::ofstream(folder / "office.svg")
        << "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"96mm\" height=\"42mm\" viewBox=\"0 0 96 42\" "
           "font-family=\"No Such Face\"><text x=\"3\" y=\"20\" font-size=\"5\">Client {client}, sheet "
           "{number}</text></svg>";
    std::ofstream(folder / "broken.svg")
        << "<svg width=\"96mm\" height=\"42mm\">\n<text>{client</text></svg>";
    EXPECT_FALSE(window->commands<SheetCommands>().takeArtwork(path("broken.svg")));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("broken.svg:2")))
        << window->prompt()->text().toStdString();
    EXPECT_FALSE(window->commands<SheetCommands>().takeArtwork(path("nowhere.svg")));
    ASSERT_TRUE(window->commands<SheetCommands>().takeArtwork(path("office.svg")));
    const ObjectId office = named<objects::Artwork>("office");
    const std::size_t frame = frameOf<objects::TitleFrame>(now());
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("title"),
        operations::changeFrame<objects::TitleFrame>(sheet, frame, [&](auto& f) { f.artwork = office; })));
    ASSERT_TRUE(window->session().edit(QStringLiteral("client"),
                                       operations::setField(sheet, "client", "R & M <Dome>")));
    window->settle();
    // The font is not there, and the page says so.
    auto* says = window->sheetPage()->findChild<QLabel*>(QStringLiteral("sheetSays"));
    EXPECT_TRUE(says->text().contains(QStringLiteral("No Such Face"))) << says->text().toStdString();
    const QString pdf = path("own.pdf");
    ASSERT_TRUE(writeSheets(pdf, *window->session().snapshot(), {sheet}));
    EXPECT_TRUE(output(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), pdf, QStringLiteral("-")})
                    .contains(QStringLiteral("Client R & M <Dome>, sheet 1")));
}

/// draws, to a pixel of a tenth of a millimetre.
/// Share of a room in millimetres that is dark.
double inkIn(const QImage& page, const QRectF& room) {
    const QRect dots = QRectF(room.topLeft() * 10, room.size() * 10).toRect() & page.rect();
    double dark = 0;
    for (int y = dots.top(); y <= dots.bottom(); ++y)
        for (int x = dots.left(); x <= dots.right(); ++x) dark += qGray(page.pixel(x, y)) < 128 ? 1 : 0;
    return dark / (static_cast<double>(dots.width()) * dots.height());
}

TEST_F(SheetFiles, EachFormOfEachPageLeavesItsInk) {
    const auto block = [](const QRectF& room) {
        return [room](QPainter& painter, double unit) {
            painter.fillRect(QRectF(room.topLeft() * unit, room.size() * unit), Qt::black);
        };
    };
    // A drawing without layers, as profiles and descriptions are, and one with three.
    const QRectF plain(10, 10, 20, 5);
    const QRectF first(10, 30, 20, 5);
    const QRectF second(50, 30, 20, 5);
    const QRectF third(50, 50, 5, 20);
    const std::vector<Drawing> drawings{
        {QSizeF(100, 80), QStringLiteral("plain"),
         [&](QPainter& p, double unit, const DrawingLayer&) { block(plain)(p, unit); }},
        {QSizeF(120, 80), QStringLiteral("layers"), [&](QPainter& p, double unit, const DrawingLayer& layer) {
             layer(QStringLiteral("one"));
             block(first)(p, unit);
             layer(QStringLiteral("two"));
             block(second)(p, unit);
             layer(QStringLiteral("three"));
             block(third)(p, unit);
         }}};
    const QString pdf = path("ink.pdf");
    ASSERT_TRUE(writeDrawings(pdf, drawings));
    const QImage one = drawnPage(pdf, 1, path("one"));
    const QImage two = drawnPage(pdf, 2, path("two"));
    EXPECT_NEAR(one.width(), 1000, 1);
    EXPECT_NEAR(two.width(), 1200, 1);
    EXPECT_GT(inkIn(one, plain), 0.98);
    for (const QRectF& room : {first, second, third}) {
        EXPECT_GT(inkIn(two, room), 0.98);
        EXPECT_EQ(inkIn(one, room), 0);
    }
    EXPECT_EQ(inkIn(two, plain), 0);
    EXPECT_EQ(inkIn(two, {60, 60, 50, 15}), 0);
}

TEST_F(SheetFiles, ThePdfIsTrueToScaleAsPopplerDrawsIt) {
    document::Document d;
    ObjectId line;
    d = d.added("Field",
                objects::Line{linework::lineThrough(
                    test::places("1000 2000, 1100 2000, 1100 2060, 1000 2060"), {}, true)},
                &line);
    for (const double degrees : {0.0, 30.0}) {
        objects::Sheet s;
        PlanFrame plan{{1050, 2030}, 500, Angle::degrees(degrees), {}, 0, 0, {}};
        plan.shown.off = {objects::allPlanParts.begin(), objects::allPlanParts.end()};
        plan.shown.off.erase(objects::PlanPart::Linework);
        s.frames = {{{20, 10, 380, 270}, plan}};
        ObjectId id;
        window->session().project().startNew(d.added("S", s, &id));
        window->settle();
        const QString pdf = path("scale.pdf");
        ASSERT_TRUE(writeSheets(pdf, *window->session().snapshot(), {id}));
        output(QStringLiteral("pdftoppm"),
               {QStringLiteral("-r"), QStringLiteral("254"), QStringLiteral("-png"),
                QStringLiteral("-singlefile"), pdf, path("scale")});
        const QImage page(path("scale.png"));
        ASSERT_NEAR(page.width(), 4200, 1);
        // Ink of the line, away from frame and border; the corners farthest to each side.
        QPoint left(9999, 0), right(0, 0), top(0, 9999), bottom(0, 0);
        for (int y = 150; y < 2750; ++y)
            for (int x = 250; x < 3950; ++x) {
                if (qGray(page.pixel(x, y)) > 160) continue;
                if (x < left.x()) left = {x, y};
                if (x > right.x()) right = {x, y};
                if (y < top.y()) top = {x, y};
                if (y > bottom.y()) bottom = {x, y};
            }
        const double line_ = 3.5;  // the line's own width, 0.35 mm
        if (degrees == 0) {
            EXPECT_NEAR(right.x() - left.x() + 1 - line_, 2000, 2);
            EXPECT_NEAR(bottom.y() - top.y() + 1 - line_, 1200, 2);
            EXPECT_NEAR((left.x() + right.x()) / 2.0, 2100, 2);
        } else {
            // Turned by 30 degrees: 200 cos 30 + 120 sin 30 wide, 200 sin 30 + 120 cos 30 high.
            EXPECT_NEAR(right.x() - left.x() + 1, 2000 * 0.8660254 + 600, 7);
            EXPECT_NEAR(bottom.y() - top.y() + 1, 1000 + 1200 * 0.8660254, 7);
        }
    }
}

TEST_F(SheetFiles, ThePreviewShowsTheSheetOnItsPaper) {
    QSizeF page;
    QTimer::singleShot(1500, window.get(), [&] {
        auto* dialog = qobject_cast<QPrintPreviewDialog*>(QApplication::activeModalWidget());
        if (dialog == nullptr) return;
        page = dialog->printer()->pageLayout().fullRect(QPageLayout::Millimeter).size();
        if (const QString shot = qEnvironmentVariable("ERDWERK_SHOT"); !shot.isEmpty())
            dialog->grab().save(shot);
        dialog->reject();
    });
    run("print-preview");
    EXPECT_NEAR(page.width(), 420, 1);
    EXPECT_NEAR(page.height(), 297, 1);
}

TEST_F(SheetFiles, PrintToAFileGivesTheSheetOnItsPaper) {
    const QString file = path("printed.pdf");
    // Without a printer the dialog asks for a file.
    QTimer::singleShot(1000, window.get(), [&] {
        auto* dialog = qobject_cast<QPrintDialog*>(QApplication::activeModalWidget());
        if (dialog == nullptr) return;
        dialog->printer()->setOutputFormat(QPrinter::PdfFormat);
        auto* name = dialog->findChild<QLineEdit*>(QStringLiteral("filename"));
        if (name == nullptr) return dialog->reject();
        name->setText(file);
        dialog->accept();
    });
    run("print");
    ASSERT_TRUE(QFileInfo::exists(file));
    EXPECT_TRUE(output(QStringLiteral("pdfinfo"), {file}).contains(QStringLiteral("A3")));
    EXPECT_TRUE(output(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), file, QStringLiteral("-")})
                    .contains(QStringLiteral("Plot Q-4")));
}

TEST_F(SheetFiles, AnSvgIsOneToItsMillimetres) {
    const QString svg = path("s.svg");
    ASSERT_TRUE(writeSheets(svg, *window->session().snapshot(), {sheet}));
    QSvgRenderer renderer(svg);
    ASSERT_TRUE(renderer.isValid());
    EXPECT_NEAR(renderer.viewBoxF().width() / renderer.viewBoxF().height(), 420.0 / 297, 1e-3);
}

}  // namespace
}  // namespace erdwerk::app
