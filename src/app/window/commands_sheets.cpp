// The commands of sheets and their frames.

#include <QDate>
#include <QFileInfo>
#include <QInputDialog>
#include <QMessageBox>
#include <QPointer>
#include <QPrintDialog>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include <QProgressDialog>
#include <QSvgRenderer>

#include "app/base/file_dialog.h"
#include "app/sheet/sheet_batch.h"
#include "app/window/main_window.h"
#include "app/window/sheets_along_dialog.h"
#include "core/format/output.h"
#include "core/objects/artwork.h"
#include "core/operations/records.h"
#include "core/operations/sheets.h"
#include "core/paper/title_block.h"

namespace erdwerk::app {

namespace {

struct FrameWords {
    const char* kind;
    const char* text;
    const char* help;
};
constexpr std::array frames{
    FrameWords{"plan", QT_TR_NOOP("Plan frame"), QT_TR_NOOP("What the plan shows now, true to scale")},
    FrameWords{"profile", QT_TR_NOOP("Profile frame"), QT_TR_NOOP("A profile with its rows")},
    FrameWords{"section", QT_TR_NOOP("Cross-sections frame"),
               QT_TR_NOOP("Sections of an alignment at equal distances")},
    FrameWords{"table", QT_TR_NOOP("Table frame"), QT_TR_NOOP("A table, or the courses of a parcel")},
    FrameWords{"description", QT_TR_NOOP("Description frame"),
               QT_TR_NOOP("The legal description of a parcel")},
    FrameWords{"legend", QT_TR_NOOP("Legend frame"), QT_TR_NOOP("The signs that the sheet's plans show")},
    FrameWords{"key-plan", QT_TR_NOOP("Key plan frame"),
               QT_TR_NOOP("The site small, with the plans of all sheets")},
    FrameWords{"scale", QT_TR_NOOP("Scale and north frame"),
               QT_TR_NOOP("Scale bar and north arrow of the first plan")},
    FrameWords{"picture", QT_TR_NOOP("Picture frame"),
               QT_TR_NOOP("A picture or drawing that the project holds")},
    FrameWords{"title-block", QT_TR_NOOP("Title block frame"),
               QT_TR_NOOP("The title block with the sheet's fields")},
    FrameWords{"notes", QT_TR_NOOP("Notes frame"), QT_TR_NOOP("A text of your own")}};
// A kind of frame that nobody can add is forgotten.
static_assert(frames.size() == std::variant_size_v<objects::FrameContent>);

}  // namespace

void MainWindow::sheetCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const auto needSheet = [this] {
        return session_.document().all<objects::Sheet>().empty() ? tr("make a sheet first") : QString();
    };
    const QString record = stageName(Stage::Record);
    const QIcon icon = theme::icon(QStringLiteral("sheet"));
    command(
        "sheet", tr("New sheet"), tr("A plan sheet round what the plan shows now"), icon, record,
        QKeySequence(QStringLiteral("N")), [this] { newSheet(); }, needProject);
    command(
        "sheet-open", tr("Open a sheet"), tr("The selected sheet, or the next one, in place of the plan"),
        icon, record, QKeySequence(QStringLiteral("O")), [this] { openSheet(); }, needSheet);
    command(
        "sheets-along", tr("Sheets along…"),
        tr("An alignment in plan and profile, sheet after sheet, with match lines"), icon, record,
        QKeySequence(QStringLiteral("G")), [this] { sheetsAlong(); },
        [this] {
            return session_.document().all<objects::Alignment>().empty() ? tr("make an alignment first")
                                                                         : QString();
        });
    command(
        "sheet-export", tr("Export sheets…"), tr("The selected sheets, or all, as PDF with layers or SVG"),
        theme::icon(QStringLiteral("export")), record, QKeySequence(QStringLiteral("W")),
        [this] { exportSheet(); }, needSheet);
    for (const char* id : {"sheet-open", "sheet-export"})
        actions_.offerFor(QString::fromLatin1(id), isOneOf<objects::Sheet>);
    actions_.offerFor(QStringLiteral("sheets-along"), isOneOf<objects::Alignment>);
}

void MainWindow::frameCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const auto needSheet = [this] {
        return session_.document().all<objects::Sheet>().empty() ? tr("make a sheet first") : QString();
    };
    const QIcon icon = theme::icon(QStringLiteral("sheet"));
    const QString menu = tr("Sheet");
    for (const auto& frame : frames)
        command((QByteArrayLiteral("frame-") + frame.kind).constData(), tr(frame.text), tr(frame.help), icon,
                menu, {}, [this, kind = std::string(frame.kind)] { addFrame(kind); }, needSheet);
    command(
        "sheet-copy", tr("Copy the sheet"), tr("The same frames on another sheet"), icon, menu, {},
        [this] {
            if (const ObjectId sheet = sheetInHand())
                editAndSelectNew(tr("Copy %1").arg(nameOf(sheet)), operations::copySheet(sheet));
            openSheet();
        },
        needSheet);
    command(
        "artwork", tr("Title block or picture…"),
        tr("Takes an SVG, PNG or JPEG into the project; a title block is an SVG with fields in braces"), icon,
        menu, {},
        [this] {
            const QString path =
                fileToOpen(this, tr("Title block or picture"),
                           tr("Drawings and pictures (*.svg *.png *.jpg *.jpeg);;All files (*)"));
            if (!path.isEmpty()) takeArtwork(path);
        },
        needProject);
    command("title-block-write", tr("Write a title block…"),
            tr("The selected title block, or the one that ships, as SVG to make your own of"), icon, menu, {},
            [this] { writeTitleBlock(); });
    command(
        "print-preview", tr("Print preview…"), tr("What would be printed, page by page"),
        theme::icon(QStringLiteral("print")), tr("File"), {},
        [this] {
            QPrinter printer(QPrinter::HighResolution);
            QPrintPreviewDialog dialog(&printer, this);
            connect(&dialog, &QPrintPreviewDialog::paintRequested, this,
                    [this](QPrinter* to) { (void)printTo(*to); });
            dialog.exec();
        },
        needProject);
    actions_.offerFor(QStringLiteral("sheet-copy"), isOneOf<objects::Sheet>);
    actions_.offerFor(QStringLiteral("title-block-write"), isOneOf<objects::Artwork>);
}

void MainWindow::connectSheets() {
    auto* add = new QMenu(this);
    for (const auto& frame : frames) {
        auto* item = add->addAction(tr(frame.text));
        item->setObjectName(QStringLiteral("add:") + QString::fromLatin1(frame.kind));
        connect(item, &QAction::triggered, this, [this, kind = std::string(frame.kind)] { addFrame(kind); });
    }
    sheetPage_->setAddMenu(add);
    connect(sheetPage_, &SheetPage::closed, this, [this] { showSheets(false); });
    connect(sheetPage_->canvas(), &SheetCanvas::menuWanted, this, &MainWindow::showMenu);
    connect(sheetPage_->canvas(), &SheetCanvas::deletePressed, this,
            [this] { actions_.run(QStringLiteral("delete")); });
    connect(sheetPage_->canvas(), &SheetCanvas::openFrame, this, &MainWindow::showFrameInPlan);
    // A sheet that is selected while sheets are shown is the one that is looked at.
    connect(&session_, &Session::selectionChanged, this, [this] {
        if (sheetPage_->isVisible())
            if (const auto sheet = session_.selected<objects::Sheet>()) sheetPage_->open(*sheet);
    });
    connect(&session_, &Session::opened, this, [this] { showSheets(false); });
    // Whatever leads to a place leads to the plan.
    connect(&session_, &Session::goToPlace, this, [this] { showSheets(false); });
}

void MainWindow::showSheets(bool shown) {
    if (!shown && middle_->currentIndex() == 0) return;
    middle_->setCurrentIndex(shown ? 1 : 0);
    prompt_->setIdle(shown
                         ? tr("Click a frame, drag it or its edges; facts take millimetres. Esc leads back.")
                         : QString());
    if (shown)
        sheetPage_->canvas()->setFocus();
    else
        plan_->setFocus();
}

/// Esc over a sheet: what is dragged, then the frame, then the sheet is let go.
bool MainWindow::leaveSheet() {
    if (!sheetPage_->isVisible()) return false;
    if (sheetPage_->canvas()->endDrag()) return true;
    if (sheetPage_->canvas()->selectedFrame())
        session_.select({{sheetPage_->sheet(), std::nullopt}});
    else
        showSheets(false);
    return true;
}

ObjectId MainWindow::sheetInHand() const {
    const auto sheets = session_.document().all<objects::Sheet>();
    if (const auto selected = session_.selected<objects::Sheet>()) return *selected;
    if (sheetPage_->isVisible()) return sheetPage_->sheet();
    return sheets.size() == 1 ? sheets.front() : ObjectId{};
}

void MainWindow::openSheet() {
    const auto sheets = session_.document().all<objects::Sheet>();
    if (sheets.empty()) return;
    const ObjectId sheet = sheetInHand();
    sheetPage_->open(sheet ? sheet : sheets.front());
    showSheets(true);
    if (!session_.isSelected(sheetPage_->sheet())) session_.select({{sheetPage_->sheet(), std::nullopt}});
}

void MainWindow::newSheet() {
    operations::NewSheet options;
    options.centre = plan_->view().centre;
    options.width = plan_->view().window().width();
    options.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    // The parcel that is meant, the only one in view, or the one that is chosen of several.
    const auto seen = operations::parcelsIn(session_.derived(), plan_->view().window());
    if (const auto selected = session_.selected<objects::Parcel>()) {
        options.parcel = *selected;
    } else if (seen.size() == 1) {
        options.parcel = seen.front();
    } else if (seen.size() > 1) {
        QStringList names{tr("none")};
        for (const ObjectId id : seen) names << nameOf(id);
        bool chosen = false;
        const QString name = QInputDialog::getItem(
            this, tr("New sheet"), tr("Whose courses and description it shows"), names, 1, false, &chosen);
        if (!chosen) return;
        if (const auto at = names.indexOf(name); at > 0)
            options.parcel = seen[static_cast<std::size_t>(at - 1)];
    }
    if (editAndSelectNew(tr("New sheet"), operations::newSheet(options)).empty()) return;
    openSheet();
}

void MainWindow::sheetsAlong() {
    const auto alignment = session_.selected<objects::Alignment>();
    auto* dialog = new SheetsAlongDialog(session_, alignment.value_or(ObjectId{}), this);
    connect(dialog, &SheetsAlongDialog::made, this, &MainWindow::openSheet);
    dialog->show();
}

void MainWindow::addFrame(const std::string& kind) {
    ObjectId sheet = sheetInHand();
    if (!sheet) sheet = session_.document().all<objects::Sheet>().front();
    operations::NewFrame frame;
    frame.kind = kind;
    frame.centre = plan_->view().centre;
    frame.width = plan_->view().window().width();
    // What is selected, when the frame can be of it.
    for (const Ref& ref : session_.selection())
        if (ref.object != sheet) frame.of = ref.object;
    if (!session_.edit(tr("Add a frame"), operations::addFrame(sheet, frame))) return;
    sheetPage_->open(sheet);
    showSheets(true);
    session_.select({{sheet, session_.document().get<objects::Sheet>(sheet)->frames.size() - 1}});
}

void MainWindow::showFrameInPlan(std::size_t frame) {
    const auto* sheet = session_.document().get<objects::Sheet>(sheetPage_->sheet());
    if (sheet == nullptr || frame >= sheet->frames.size()) return;
    const auto* plan = std::get_if<objects::PlanFrame>(&sheet->frames[frame].content);
    if (plan == nullptr) return;
    geometry::Box box;
    for (const auto corner :
         operations::planOnPaper(session_.derived(), *plan, sheet->frames[frame].room).corners)
        box.add(corner);
    showSheets(false);
    plan_->fitTo(box);
}

bool MainWindow::takeArtwork(const QString& path) {
    const auto bytes = format::readFile(path.toStdString());
    auto artwork =
        bytes ? operations::artworkFrom(*bytes) : Result<objects::Artwork>(tl::unexpected(bytes.error()));
    if (!artwork) {
        Error error = artwork.error();
        error.file = path.toStdString();
        say(QString::fromStdString(error.message()), true);
        return false;
    }
    // What cannot be drawn is not taken.
    const auto drawing =
        QByteArray::fromRawData(artwork->bytes->data(), static_cast<qsizetype>(artwork->bytes->size()));
    if (artwork->format == objects::ArtworkFormat::Svg ? !QSvgRenderer(drawing).isValid()
                                                       : QImage::fromData(drawing).isNull()) {
        say(tr("%1: cannot be drawn; the file is damaged").arg(path), true);
        return false;
    }
    const QString name = QFileInfo(path).completeBaseName();
    return session_
        .edit(tr("Take over %1").arg(QFileInfo(path).fileName()),
              operations::putArtwork(name.toStdString(), std::move(*artwork)))
        .done;
}

void MainWindow::writeTitleBlock() {
    std::string svg(paper::shippedTitleBlock());
    QString name = tr("title-block");
    if (const auto selected = session_.selected<objects::Artwork>())
        if (const auto* artwork = session_.document().get<objects::Artwork>(*selected);
            artwork->format == objects::ArtworkFormat::Svg) {
            svg = *artwork->bytes;
            name = nameOf(*selected);
        }
    const QString path =
        fileToWrite(this, tr("Title block"), name + QStringLiteral(".svg"), tr("SVG (*.svg)"));
    if (!path.isEmpty()) report(format::replaceFile(path.toStdString(), svg), path);
}

Result<void> MainWindow::printTo(QPrinter& printer) {
    session_.waitForResults();
    std::vector<ObjectId> chosen;
    for (const ObjectId id : session_.document().all<objects::Sheet>())
        if (session_.isSelected(id)) chosen.push_back(id);
    if (const ObjectId sheet = sheetInHand(); chosen.empty() && sheet) chosen = {sheet};
    if (chosen.empty()) return printPlan(printer, *session_.snapshot(), plan_->view());
    return printSheets(printer, *session_.snapshot(), chosen);
}

void MainWindow::exportSheet() {
    // Those that are selected, else all: the pages of one PDF.
    std::vector<ObjectId> chosen;
    const auto sheets = session_.document().all<objects::Sheet>();
    for (const ObjectId id : sheets)
        if (session_.isSelected(id) && !sheetPage_->canvas()->selectedFrame()) chosen.push_back(id);
    if (chosen.empty()) chosen = sheets;
    const QString path =
        fileToWrite(this, tr("Sheets to PDF or SVG"), nameOf(chosen.front()) + QStringLiteral(".pdf"),
                    tr("PDF (*.pdf);;SVG (*.svg)"));
    if (!path.isEmpty()) writeSheetsAside(path, std::move(chosen));
}

void MainWindow::writeSheetsAside(const QString& path, std::vector<ObjectId> sheets) {
    session_.waitForResults();
    // One at a time; another one ends it.
    batch_ = std::make_unique<SheetBatch>(path, session_.snapshot(), std::move(sheets));
    const QPointer progress =
        new QProgressDialog(tr("Writing sheets …"), tr("Stop"), 0, batch_->count(), this);
    progress->setAttribute(Qt::WA_DeleteOnClose);
    progress->setMinimumDuration(500);
    connect(progress, &QProgressDialog::canceled, batch_.get(), &SheetBatch::stop);
    connect(batch_.get(), &SheetBatch::progressed, progress, &QProgressDialog::setValue);
    connect(batch_.get(), &QObject::destroyed, progress, &QProgressDialog::close);
    connect(batch_.get(), &SheetBatch::finished, this,
            [this, progress](const QString& file, const QString& reason) {
                if (progress) progress->close();
                if (reason.isEmpty())
                    say(tr("Written to %1").arg(QFileInfo(file).fileName()), false);
                else
                    say(tr("Not written: %1").arg(reason), true);
            });
}

}  // namespace erdwerk::app
