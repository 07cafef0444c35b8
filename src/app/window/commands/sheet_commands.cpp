#include "app/window/commands/sheet_commands.h"

#include <QCoreApplication>
#include <QDate>
#include <QFileInfo>
#include <QImage>
#include <QInputDialog>
#include <QMenu>
#include <QPointer>
#include <QProgressDialog>
#include <QSvgRenderer>

#include "app/base/file_dialog.h"
#include "app/base/theme.h"
#include "app/plan/plan_view.h"
#include "app/sheet/sheet_batch.h"
#include "app/sheet/sheet_canvas.h"
#include "app/sheet/sheet_page.h"
#include "app/window/sheets_along_dialog.h"
#include "app/window/workbench.h"
#include "core/format/output.h"
#include "core/objects/artwork.h"
#include "core/objects/sheet.h"
#include "core/operations/records.h"
#include "core/operations/sheets.h"
#include "core/paper/title_block.h"

namespace erdwerk::app {

namespace {

QString translated(const char* words) {
    return QCoreApplication::translate("FrameKind", words);
}

}  // namespace

SheetCommands::SheetCommands(Workbench& work) : CommandSet(work) {
    add();
    frameCommands();
    connectPage();
}

SheetCommands::~SheetCommands() = default;

void SheetCommands::add() {
    const auto needProject = anOpenProject();
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
    offer({"sheet-open", "sheet-export"}, isOneOf<objects::Sheet>);
    offer({"sheets-along"}, isOneOf<objects::Alignment>);
}

void SheetCommands::frameCommands() {
    const auto needProject = anOpenProject();
    const auto needSheet = [this] {
        return session_.document().all<objects::Sheet>().empty() ? tr("make a sheet first") : QString();
    };
    const QIcon icon = theme::icon(QStringLiteral("sheet"));
    const QString menu = tr("Sheet");
    for (const auto& kind : objects::frameKinds)
        command(
            qPrintable(QStringLiteral("frame-") + QString::fromUtf8(kind.id.data())), translated(kind.title),
            translated(kind.help), icon, menu, {}, [this, &kind] { addFrame(kind); }, needSheet);
    command(
        "sheet-copy", tr("Copy the sheet"), tr("The same frames on another sheet"), icon, menu, {},
        [this] {
            if (const ObjectId sheet = work_.sheetInHand())
                work_.editAndSelectNew(tr("Copy %1").arg(work_.nameOf(sheet)), operations::copySheet(sheet));
            openSheet();
        },
        needSheet);
    command(
        "artwork", tr("Title block or picture…"),
        tr("Takes an SVG, PNG or JPEG into the project; a title block is an SVG with fields in braces"), icon,
        menu, {},
        [this] {
            const QString path =
                fileToOpen(work_.window, tr("Title block or picture"),
                           tr("Drawings and pictures (*.svg *.png *.jpg *.jpeg);;All files (*)"));
            if (!path.isEmpty()) takeArtwork(path);
        },
        needProject);
    command("title-block-write", tr("Write a title block…"),
            tr("The selected title block, or the one that ships, as SVG to make your own of"), icon, menu, {},
            [this] { writeTitleBlock(); });
    offer({"sheet-copy"}, isOneOf<objects::Sheet>);
    offer({"title-block-write"}, isOneOf<objects::Artwork>);
}

void SheetCommands::connectPage() {
    auto* add = new QMenu(work_.window);
    for (const auto& kind : objects::frameKinds) {
        auto* item = add->addAction(translated(kind.title));
        item->setObjectName(QStringLiteral("add:") + QString::fromUtf8(kind.id.data()));
        connect(item, &QAction::triggered, this, [this, &kind] { addFrame(kind); });
    }
    work_.sheetPage->setAddMenu(add);
    connect(work_.sheetPage, &SheetPage::closed, this, [this] { work_.showSheets(false); });
    connect(work_.sheetPage->canvas(), &SheetCanvas::deletePressed, this,
            [this] { actions_.run(QStringLiteral("delete")); });
    connect(work_.sheetPage->canvas(), &SheetCanvas::openFrame, this, &SheetCommands::showFrameInPlan);
    // A sheet that is selected while sheets are shown is the one that is looked at.
    connect(&session_.selection(), &Selection::changed, this, [this] {
        if (work_.sheetPage->isVisible())
            if (const auto sheet = session_.selected<objects::Sheet>()) work_.sheetPage->open(*sheet);
    });
    connect(&session_, &Session::opened, this, [this] { work_.showSheets(false); });
    // Whatever leads to a place leads to the plan.
    connect(&session_.selection(), &Selection::goToPlace, this, [this] { work_.showSheets(false); });
}

void SheetCommands::openSheet() {
    const auto sheets = session_.document().all<objects::Sheet>();
    if (sheets.empty()) return;
    const ObjectId sheet = work_.sheetInHand();
    work_.sheetPage->open(sheet ? sheet : sheets.front());
    work_.showSheets(true);
    if (!session_.selection().holds(work_.sheetPage->sheet()))
        session_.selection().set({{work_.sheetPage->sheet(), std::nullopt}});
}

void SheetCommands::newSheet() {
    operations::NewSheet options;
    options.centre = work_.plan->view().centre;
    options.width = work_.plan->view().window().width();
    options.date = QDate::currentDate().toString(Qt::ISODate).toStdString();
    // The parcel that is meant, the only one in view, or the one that is chosen of several.
    const auto seen = operations::parcelsIn(session_.derived(), work_.plan->view().window());
    if (const auto selected = session_.selected<objects::Parcel>()) {
        options.parcel = *selected;
    } else if (seen.size() == 1) {
        options.parcel = seen.front();
    } else if (seen.size() > 1) {
        QStringList names{tr("none")};
        for (const ObjectId id : seen) names << work_.nameOf(id);
        bool chosen = false;
        const QString name =
            QInputDialog::getItem(work_.window, tr("New sheet"), tr("Whose courses and description it shows"),
                                  names, 1, false, &chosen);
        if (!chosen) return;
        if (const auto at = names.indexOf(name); at > 0)
            options.parcel = seen[static_cast<std::size_t>(at - 1)];
    }
    if (work_.editAndSelectNew(tr("New sheet"), operations::newSheet(options)).empty()) return;
    openSheet();
}

void SheetCommands::sheetsAlong() {
    const auto alignment = session_.selected<objects::Alignment>();
    auto* dialog = new SheetsAlongDialog(session_, alignment.value_or(ObjectId{}), work_.window);
    connect(dialog, &SheetsAlongDialog::made, this, &SheetCommands::openSheet);
    dialog->show();
}

void SheetCommands::addFrame(const objects::FrameKind& kind) {
    ObjectId sheet = work_.sheetInHand();
    if (!sheet) sheet = session_.document().all<objects::Sheet>().front();
    operations::NewFrame frame;
    frame.content = *objects::frameContent(kind.id);
    frame.centre = work_.plan->view().centre;
    frame.width = work_.plan->view().window().width();
    // What is selected, when the frame can be of it.
    for (const Ref& ref : session_.selection())
        if (ref.object != sheet) frame.of = ref.object;
    if (!session_.edit(tr("Add a frame"), operations::addFrame(sheet, frame))) return;
    work_.sheetPage->open(sheet);
    work_.showSheets(true);
    session_.selection().set({{sheet, session_.document().get<objects::Sheet>(sheet)->frames.size() - 1}});
}

void SheetCommands::showFrameInPlan(std::size_t frame) {
    const auto* sheet = session_.document().get<objects::Sheet>(work_.sheetPage->sheet());
    if (sheet == nullptr || frame >= sheet->frames.size()) return;
    const auto* plan = std::get_if<objects::PlanFrame>(&sheet->frames[frame].content);
    if (plan == nullptr) return;
    geometry::Box box;
    for (const auto corner :
         operations::planOnPaper(session_.derived(), *plan, sheet->frames[frame].room).corners)
        box.add(corner);
    work_.showSheets(false);
    work_.plan->fitTo(box);
}

bool SheetCommands::takeArtwork(const QString& path) {
    const auto bytes = format::readFile(path.toStdString());
    auto artwork =
        bytes ? operations::artworkFrom(*bytes) : Result<objects::Artwork>(tl::unexpected(bytes.error()));
    if (!artwork) {
        Error error = artwork.error();
        error.file = path.toStdString();
        work_.say(QString::fromStdString(error.message()), true);
        return false;
    }
    // What cannot be drawn is not taken.
    const auto drawing =
        QByteArray::fromRawData(artwork->bytes->data(), static_cast<qsizetype>(artwork->bytes->size()));
    if (artwork->format == objects::ArtworkFormat::Svg ? !QSvgRenderer(drawing).isValid()
                                                       : QImage::fromData(drawing).isNull()) {
        work_.say(tr("%1: cannot be drawn; the file is damaged").arg(path), true);
        return false;
    }
    const QString name = QFileInfo(path).completeBaseName();
    return session_
        .edit(tr("Take over %1").arg(QFileInfo(path).fileName()),
              operations::putArtwork(name.toStdString(), std::move(*artwork)))
        .done;
}

void SheetCommands::writeTitleBlock() {
    std::string svg(paper::shippedTitleBlock());
    QString name = tr("title-block");
    if (const auto selected = session_.selected<objects::Artwork>())
        if (const auto* artwork = session_.document().get<objects::Artwork>(*selected);
            artwork->format == objects::ArtworkFormat::Svg) {
            svg = *artwork->bytes;
            name = work_.nameOf(*selected);
        }
    const QString path =
        fileToWrite(work_.window, tr("Title block"), name + QStringLiteral(".svg"), tr("SVG (*.svg)"));
    if (!path.isEmpty()) work_.report(format::replaceFile(path.toStdString(), svg), path);
}

void SheetCommands::exportSheet() {
    // Those that are selected, else all: the pages of one PDF.
    std::vector<ObjectId> chosen;
    const auto sheets = session_.document().all<objects::Sheet>();
    for (const ObjectId id : sheets)
        if (session_.selection().holds(id) && !work_.sheetPage->canvas()->selectedFrame())
            chosen.push_back(id);
    if (chosen.empty()) chosen = sheets;
    const QString path =
        fileToWrite(work_.window, tr("Sheets to PDF or SVG"),
                    work_.nameOf(chosen.front()) + QStringLiteral(".pdf"), tr("PDF (*.pdf);;SVG (*.svg)"));
    if (!path.isEmpty()) writeSheets(path, std::move(chosen));
}

void SheetCommands::writeSheets(const QString& path, std::vector<ObjectId> sheets) {
    session_.waitForResults();
    // One at a time; another one ends it.
    batch_ = std::make_unique<SheetBatch>(path, session_.snapshot(), std::move(sheets));
    const QPointer progress =
        new QProgressDialog(tr("Writing sheets …"), tr("Stop"), 0, batch_->count(), work_.window);
    progress->setAttribute(Qt::WA_DeleteOnClose);
    progress->setMinimumDuration(500);
    connect(progress, &QProgressDialog::canceled, batch_.get(), &SheetBatch::stop);
    connect(batch_.get(), &SheetBatch::progressed, progress, &QProgressDialog::setValue);
    connect(batch_.get(), &QObject::destroyed, progress, &QProgressDialog::close);
    connect(batch_.get(), &SheetBatch::finished, this,
            [this, progress](const QString& file, const QString& reason) {
                if (progress) progress->close();
                if (reason.isEmpty())
                    work_.say(tr("Written to %1").arg(QFileInfo(file).fileName()), false);
                else
                    work_.say(tr("Not written: %1").arg(reason), true);
            });
}

}  // namespace erdwerk::app

#include "moc_sheet_commands.cpp"
