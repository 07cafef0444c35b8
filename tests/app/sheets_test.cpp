// Sheets as a person works on them: frames dragged, sized, typed, along an alignment, out as PDF with layers.

#include <QMenu>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include <QProcess>
#include <QSvgRenderer>

#include "app/sheet/text_recorder.h"
#include "core/operations/sheets.h"
#include "support/sheets.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using objects::PlanFrame;
using test::frameOf;

class Sheets : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        demo();
        sheet = named<objects::Sheet>("Plan of Plot Q-4");
        select(sheet);
        run("sheet-open");
        window->settle();
    }
    SheetCanvas* canvas() { return window->sheetPage()->canvas(); }
    const objects::Sheet& now() { return *doc().get<objects::Sheet>(sheet); }
    QPoint at(double x, double y) { return canvas()->toScreen(x, y).toPoint(); }
    void drag(QPoint from, QPoint to, bool release = true) {
        QTest::mousePress(canvas(), Qt::LeftButton, {}, from);
        for (int k = 1; k <= 4; ++k) {
            const QPointF p = QPointF(from) + QPointF(to - from) * k / 4;
            QMouseEvent move(QEvent::MouseMove, p, canvas()->mapToGlobal(p), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(canvas(), &move);
        }
        if (release) QTest::mouseRelease(canvas(), Qt::LeftButton, {}, to);
    }
    QString path(const char* name) { return QString::fromStdString(folder / name); }
    static QString output(const QString& program, const QStringList& words) {
        QProcess process;
        process.start(program, words);
        EXPECT_TRUE(process.waitForFinished(60000)) << program.toStdString();
        return QString::fromUtf8(process.readAllStandardOutput());
    }
    ObjectId sheet;
};

TEST_F(Sheets, AFrameIsTakenDraggedSizedAndBroughtBackByUndo) {
    const std::size_t frame = frameOf<objects::DescriptionFrame>(now());
    const auto room = now().frames[frame].room;
    const QPoint middle = at(room.left + room.width / 2, room.top + room.height / 2);
    QTest::mouseClick(canvas(), Qt::LeftButton, {}, middle);
    ASSERT_EQ(canvas()->selectedFrame(), frame);
    drag(middle, at(room.left + room.width / 2 - 60, room.top + room.height / 2 - 21.5));
    auto moved = now().frames[frame].room;
    EXPECT_NEAR(moved.left, room.left - 60, 4);
    EXPECT_NEAR(moved.top, room.top - 21.5, 4);
    EXPECT_DOUBLE_EQ(moved.width, room.width);
    // By its lower right corner.
    drag(at(moved.right(), moved.bottom()), at(moved.right() - 15, moved.bottom() - 12));
    EXPECT_DOUBLE_EQ(now().frames[frame].room.left, moved.left);
    EXPECT_NEAR(now().frames[frame].room.width, moved.width - 15, 4);
    window->session().undo();
    window->session().undo();
    EXPECT_EQ(now().frames[frame].room, room);
    EXPECT_EQ(canvas()->selectedFrame(), frame);
}

TEST_F(Sheets, GuidesAreCaughtAndEscLeavesTheFrameWhereItWas) {
    const std::size_t frame = frameOf<objects::ScaleFrame>(now());
    const auto room = now().frames[frame].room;
    const QPoint grip = at(room.left + 10, room.top + 10);
    QTest::mouseClick(canvas(), Qt::LeftButton, {}, grip);
    // Its left edge comes within a millimetre of the plan's right edge.
    const double edge = now().frames[frameOf<PlanFrame>(now())].room.right();
    drag(grip, at(room.left + 10 + (edge - room.left) + 0.6, room.top + 60));
    EXPECT_DOUBLE_EQ(now().frames[frame].room.left, edge);
    const auto caught = now().frames[frame].room;
    const QPoint again = at(caught.left + 10, caught.top + 10);
    drag(again, at(caught.left - 90, caught.top + 50), false);
    key(Qt::Key_Escape);
    QTest::mouseRelease(canvas(), Qt::LeftButton, {}, at(caught.left - 90, caught.top + 50));
    EXPECT_EQ(now().frames[frame].room, caught);
}

TEST_F(Sheets, ArrowsNudgeDeleteRemovesAndEscLeadsBack) {
    const std::size_t frame = frameOf<objects::ScaleFrame>(now());
    window->session().select({{sheet, frame}});
    canvas()->setFocus();
    const auto room = now().frames[frame].room;
    QTest::keyClick(canvas(), Qt::Key_Left);
    QTest::keyClick(canvas(), Qt::Key_Down, Qt::ShiftModifier);
    EXPECT_NEAR(now().frames[frame].room.left, room.left - 1, 1e-9);
    EXPECT_NEAR(now().frames[frame].room.top, room.top + 10, 1e-9);
    const std::size_t count = now().frames.size();
    QTest::keyClick(canvas(), Qt::Key_Delete);
    EXPECT_EQ(now().frames.size(), count - 1);
    EXPECT_TRUE(doc().find(sheet));
    EXPECT_FALSE(canvas()->selectedFrame());
    key(Qt::Key_Escape);
    EXPECT_FALSE(window->sheetPage()->isVisible());
    EXPECT_TRUE(window->plan()->isVisible());
}

TEST_F(Sheets, AFrameThatIsTakenBackIsNeitherDeletedNorItsSheet) {
    run("frame-notes");
    ASSERT_TRUE(canvas()->selectedFrame());
    const std::size_t frames = now().frames.size();
    window->session().undo();
    ASSERT_EQ(now().frames.size(), frames - 1);
    run("delete");
    EXPECT_TRUE(doc().find(sheet));
    EXPECT_EQ(now().frames.size(), frames - 1);
    EXPECT_FALSE(canvas()->selectedFrame());
}

TEST_F(Sheets, UndoWhileAFrameIsDraggedLetsItGo) {
    run("frame-notes");
    run("frame-legend");
    const std::size_t frame = now().frames.size() - 1;
    const auto room = now().frames[frame].room;
    const QPoint middle = at(room.left + room.width / 2, room.top + room.height / 2);
    drag(middle, middle + QPoint(40, 30), false);
    window->session().undo();
    const auto before = now();
    QTest::mouseRelease(canvas(), Qt::LeftButton, {}, middle + QPoint(40, 30));
    EXPECT_EQ(now(), before);
}

TEST_F(Sheets, AnEdgeStopsAtThatOfThePaperAndTheFrameStaysWhereItIs) {
    const std::size_t frame = frameOf<objects::TitleFrame>(now());
    window->session().select({{sheet, frame}});
    const auto room = now().frames[frame].room;
    drag(at(room.right(), room.top + room.height / 2), at(room.right() + 60, room.top + room.height / 2));
    EXPECT_DOUBLE_EQ(now().frames[frame].room.left, room.left);
    EXPECT_NEAR(now().frames[frame].room.right(), 420, 1e-9);
}

TEST_F(Sheets, ADamagedPictureIsNotTaken) {
    std::ofstream(folder / "cut.png") << "\x89PNG\r\n\x1a\n and no more";
    EXPECT_FALSE(window->takeArtwork(path("cut.png")));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("damaged")));
    EXPECT_TRUE(doc().all<objects::Artwork>().empty());
}

TEST_F(Sheets, WhateverLeadsToAPlaceLeadsToThePlan) {
    run("draw-line");
    EXPECT_TRUE(window->plan()->isVisible());
    key(Qt::Key_Escape);
    select(sheet);
    run("sheet-open");
    EXPECT_FALSE(window->plan()->isVisible());
    Q_EMIT window->session().goToPlace({48100, 91080});
    EXPECT_TRUE(window->plan()->isVisible());
}

TEST_F(Sheets, EveryKindOfFrameIsAddedAndDrawn) {
    ASSERT_TRUE(window->takeArtwork(QString::fromUtf8(DEMO_FOLDER "/title-block.svg")));
    const std::size_t before = now().frames.size();
    for (const char* kind : {"plan", "profile", "section", "table", "description", "legend", "key-plan",
                             "scale", "picture", "title-block", "notes"}) {
        run((std::string("frame-") + kind).c_str());
        EXPECT_EQ(objects::frameKind(now().frames.back().content), kind);
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
        EXPECT_GT(ink, 100) << objects::frameKind(now().frames[i].content);
        EXPECT_EQ(madder, 0) << objects::frameKind(now().frames[i].content);
    }
}

TEST_F(Sheets, AFrameKnowsWhichGroupsItShows) {
    const std::size_t frame = frameOf<PlanFrame>(now());
    window->session().select({{sheet, frame}});
    QCoreApplication::processEvents();
    const auto ink = [&] {
        window->settle();
        TextRecorder recorder(QSizeF(420, 297) * 10);
        QPainter painter(&recorder);
        paintSheet(painter, *window->session().snapshot(), sheet, 10);
        painter.end();
        return recorder.written().size();
    };
    const auto before = ink();
    run("sheet-open");
    const ObjectId style = named<objects::LabelStyle>("Plain segment");
    ASSERT_TRUE(window->session().edit(QStringLiteral("hide"),
                                       operations::setFrameShows(sheet, frame, style, false)));
    EXPECT_LT(ink(), before);
    // The screen still shows them.
    EXPECT_FALSE(doc().shown().hidden.contains(style));
}

TEST_F(Sheets, AlongTheLaneTheyAreMadeInOneGoAndTakenBackInOne) {
    key(Qt::Key_Escape);
    select(named<objects::Alignment>("Starling Lane"));
    const std::size_t before = doc().all<objects::Sheet>().size();
    run("sheets-along");
    auto* dialog = window->findChild<QDialog*>(QStringLiteral("sheetsAlong"));
    ASSERT_NE(dialog, nullptr);
    EXPECT_FALSE(dialog->isModal());
    auto* scale = dialog->findChild<QLineEdit*>();
    auto* result = dialog->findChild<QLabel*>(QStringLiteral("sheetsAlongResult"));
    EXPECT_TRUE(result->text().contains(QStringLiteral("sheets"))) << result->text().toStdString();
    auto* make = dialog->findChild<QPushButton*>(QStringLiteral("makeSheets"));
    scale->setText(QStringLiteral("none"));
    EXPECT_FALSE(make->isEnabled());
    EXPECT_TRUE(result->text().contains(QStringLiteral("scale")));
    scale->setText(QStringLiteral("200"));
    EXPECT_TRUE(make->isEnabled()) << result->text().toStdString();
    make->click();
    window->settle();
    const std::size_t made = doc().all<objects::Sheet>().size() - before;
    EXPECT_GE(made, 3U);
    EXPECT_TRUE(window->sheetPage()->isVisible());
    window->session().undo();
    EXPECT_EQ(doc().all<objects::Sheet>().size(), before);
    window->settle();
}

/// The whole set as one PDF, opened by poppler: pages, words, layers, no raster; nothing lies on another.
TEST_F(Sheets, TheSetIsWrittenAsideWithLayersThatAreSwitched) {
    std::vector<ObjectId> all = doc().all<objects::Sheet>();
    ASSERT_EQ(all.size(), 3U);
    for (const ObjectId id : all)
        EXPECT_EQ(textsOn(*window->session().snapshot(), id).overlaps, 0U) << doc().nameOf(id);
    const QString pdf = path("set.pdf");
    window->writeSheetsAside(pdf, all);
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

TEST_F(Sheets, WritingThatIsStoppedLeavesNoFile) {
    const QString pdf = path("stopped.pdf");
    std::vector<ObjectId> many(40, sheet);
    window->writeSheetsAside(pdf, many);
    window->batch()->stop();
    QTRY_VERIFY_WITH_TIMEOUT(window->prompt()->text().contains(QStringLiteral("Not written")), 60000);
    EXPECT_FALSE(QFileInfo::exists(pdf));
    EXPECT_TRUE(QDir(QString::fromStdString(folder / "")).entryList({QStringLiteral("*.laid*")}).isEmpty());
    window->writeSheetsAside(QStringLiteral("/proc/no.pdf"), {sheet});
    QTRY_VERIFY_WITH_TIMEOUT(window->prompt()->text().contains(QStringLiteral("/proc/no.pdf")), 60000);
}

TEST_F(Sheets, AnOwnTitleBlockStandsInAndWhatIsNoneIsRefused) {
    std::ofstream(folder / "office.svg")
        << "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"96mm\" height=\"42mm\" viewBox=\"0 0 96 42\" "
           "font-family=\"No Such Face\"><text x=\"3\" y=\"20\" font-size=\"5\">Client {client}, sheet "
           "{number}</text></svg>";
    std::ofstream(folder / "broken.svg")
        << "<svg width=\"96mm\" height=\"42mm\">\n<text>{client</text></svg>";
    EXPECT_FALSE(window->takeArtwork(path("broken.svg")));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("broken.svg:2")))
        << window->prompt()->text().toStdString();
    EXPECT_FALSE(window->takeArtwork(path("nowhere.svg")));
    ASSERT_TRUE(window->takeArtwork(path("office.svg")));
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

/// A rectangle of 100 by 60 m in a frame at 1:500 is 200 by 120 mm, turned or not: measured in what poppler
/// draws, to a pixel of a tenth of a millimetre.
TEST_F(Sheets, ThePdfIsTrueToScaleAsPopplerDrawsIt) {
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
        window->session().startNew(d.added("S", s, &id));
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

TEST_F(Sheets, ThePreviewShowsTheSheetOnItsPaper) {
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

TEST_F(Sheets, AnSvgIsOneToItsMillimetres) {
    const QString svg = path("s.svg");
    ASSERT_TRUE(writeSheets(svg, *window->session().snapshot(), {sheet}));
    QSvgRenderer renderer(svg);
    ASSERT_TRUE(renderer.isValid());
    EXPECT_NEAR(renderer.viewBoxF().width() / renderer.viewBoxF().height(), 420.0 / 297, 1e-3);
}

TEST_F(Sheets, AnotherProjectAnotherSheetAndADeletedOneLeaveNothingBehind) {
    auto* which = window->sheetPage()->findChild<QComboBox*>(QStringLiteral("whichSheet"));
    ASSERT_EQ(which->count(), 3);
    which->setCurrentIndex(1);
    Q_EMIT which->activated(1);
    EXPECT_NE(canvas()->sheet(), sheet);
    const ObjectId second = canvas()->sheet();
    put(QStringLiteral("gone"), doc().without(second));
    window->settle();
    EXPECT_EQ(canvas()->sheet(), sheet);
    put(QStringLiteral("all gone"), document::removeAll(doc(), doc().all<objects::Sheet>()));
    window->settle();
    EXPECT_FALSE(window->sheetPage()->isVisible());
    window->session().undo();
    window->settle();
    run("sheet-open");
    EXPECT_TRUE(window->sheetPage()->isVisible());
    demo();
    EXPECT_FALSE(window->sheetPage()->isVisible());
}

TEST_F(Sheets, APlanOnASheetFollowsADragOnTheGround) {
    key(Qt::Key_Escape);
    run("sheet-open");
    const ObjectId terrace = named<objects::Line>("Dome Terrace");
    const QImage was = canvas()->grab().toImage();
    put(QStringLiteral("move"), document::changed<objects::Line>(doc(), terrace, [](objects::Line& l) {
            for (auto& v : l.line.vertices) v.place.x += 12;
        }));
    window->settle();
    EXPECT_NE(canvas()->grab().toImage(), was);
}

}  // namespace
}  // namespace erdwerk::app
