#include "app/window/commands/parcel_commands.h"

#include <QClipboard>
#include <QFileInfo>
#include <QGuiApplication>

#include "app/base/file_dialog.h"
#include "app/base/text_document.h"
#include "app/base/theme.h"
#include "app/bench/bench.h"
#include "app/plan/plan_view.h"
#include "app/window/workbench.h"
#include "core/derive/derived.h"
#include "core/format/description_file.h"
#include "core/format/output.h"
#include "core/format/text_file.h"
#include "core/objects/parcel.h"
#include "core/operations/closure_report.h"
#include "core/operations/descriptions.h"

namespace erdwerk::app {

ParcelCommands::ParcelCommands(Workbench& work) : CommandSet(work) {
    add();
}

void ParcelCommands::add() {
    const auto needProject = anOpenProject();
    const auto needParcel = [this] {
        return session_.document().all<objects::Parcel>().empty() ? tr("make a parcel first") : QString();
    };
    const QString record = stageName(Stage::Record);
    command(
        "read-back", tr("Read back"),
        tr("The description in the clipboard is read into courses, drawn, and compared with a parcel"),
        theme::icon(QStringLiteral("read-back")), record, QKeySequence(QStringLiteral("R")),
        [this] { readBack(tr("Read description"), QGuiApplication::clipboard()->text()); }, needProject);
    command(
        "read-back-file", tr("Read back a file…"), tr("A description in a text file is read into courses"),
        theme::icon(QStringLiteral("read-back")), record, {},
        [this] {
            const QString path =
                fileToOpen(work_.window, tr("Read back a description"), tr("Texts (*.txt);;All (*)"));
            if (path.isEmpty()) return;
            const auto text = format::readTextFile(path.toStdString());
            if (!text) return work_.say(QString::fromStdString(text.error().message()), true);
            readBack(QFileInfo(path).completeBaseName(), QString::fromStdString(*text));
        },
        needProject);
    command(
        "describe", tr("Description…"),
        tr("The description of the selected parcel, or the only one, as text, ODT or PDF"),
        theme::icon(QStringLiteral("export")), record, {}, [this] { exportDescription(); }, needParcel);
    command(
        "closure", tr("Closure report…"),
        tr("Latitudes and departures of the selected parcel, exact and as written, with its misclosure"),
        theme::icon(QStringLiteral("export")), record, {}, [this] { exportClosure(); }, needParcel);
    command(
        "wording-read", tr("Read a wording…"), tr("Sentences of descriptions, kept in a JSON file"),
        theme::icon(QStringLiteral("label-style")), record, {},
        [this] {
            const QString path = fileToOpen(work_.window, tr("Wording"), tr("Wordings (*.json)"));
            if (path.isEmpty()) return;
            const auto read = format::readWording(
                path.toStdString(), parcel::plainTemplate(session_.document().settings().display.unit));
            if (!read) return work_.say(QString::fromStdString(read.error().message()), true);
            session_.edit(tr("Read a wording"), operations::addWording(*read));
        },
        needProject);
    offer({"describe", "closure"}, isOneOf<objects::Parcel>);
}

/// The selected parcel, else the only one; none when there are several.
ObjectId ParcelCommands::oneParcel() const {
    for (const Ref& ref : session_.selection())
        if (session_.document().get<objects::Parcel>(ref.object) != nullptr) return ref.object;
    const auto all = session_.document().all<objects::Parcel>();
    return all.size() == 1 ? all.front() : ObjectId{};
}

void ParcelCommands::readBack(const QString& name, const QString& text) {
    if (text.trimmed().isEmpty())
        return work_.say(tr("The clipboard holds no text: copy a description first"), true);
    session_.waitForResults();
    const auto edit = operations::readBack(session_.derived(), name.toStdString(), text.toStdString(),
                                           oneParcel(), work_.plan->view().window().centre());
    const auto read = session_.edit(tr("Read back"), edit);
    if (!read) return;
    session_.selection().set({{read.made.front(), std::nullopt}});
    work_.bench->open(Bench::Page::Tables);
}

void ParcelCommands::exportClosure() {
    const ObjectId id = oneParcel();
    if (!id) return work_.say(tr("Select the parcel whose closure it is to be"), true);
    session_.waitForResults();
    const auto report = operations::closureReport(session_.derived(), id);
    if (!report) return work_.say(QString::fromStdString(report.error().message()), true);
    const QString path =
        fileToWrite(work_.window, tr("Closure report"),
                    work_.nameOf(id) + tr(" closure") + QStringLiteral(".txt"), tr("Text (*.txt)"));
    if (path.isEmpty()) return;
    if (format::endingOf(path.toStdString()) != ".txt")
        return work_.say(tr("A closure report is written as .txt"), true);
    const auto done = format::replaceFile(path.toStdString(), *report);
    if (!done) return work_.say(QString::fromStdString(done.error().message()), true);
    work_.say(tr("Written to %1").arg(QFileInfo(path).fileName()), false);
}

void ParcelCommands::exportDescription() {
    const ObjectId id = oneParcel();
    if (!id) return work_.say(tr("Select the parcel whose description it is to be"), true);
    session_.waitForResults();
    const auto* parcel = derive::Derived::in(session_.derived().parcels, id);
    if (parcel == nullptr) return;
    const QString path =
        fileToWrite(work_.window, tr("Description"),
                    QString::fromStdString(session_.document().nameOf(id)) + QStringLiteral(".odt"),
                    tr("Rich text (*.odt);;PDF (*.pdf);;Text (*.txt)"));
    if (path.isEmpty()) return;
    const auto done = writeTextDocument(path, QString::fromStdString(parcel->description));
    if (!done) return work_.say(QString::fromStdString(done.error().message()), true);
    work_.say(tr("Written to %1").arg(QFileInfo(path).fileName()), false);
}

}  // namespace erdwerk::app

#include "moc_parcel_commands.cpp"
