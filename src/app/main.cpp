// erdwerk [PROJECT]                 opens the window
// erdwerk --demo                    with the demo
// erdwerk --screenshot FILE …       takes a picture when everything is drawn, and ends
// erdwerk --sheet NAME PROJECT -o OUT   writes a plan sheet without a window
// erdwerk --text FILE -o OUT        writes a description as a document

#include <QApplication>
#include <QCommandLineParser>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QTimer>
#include <cstdio>

#include "app/base/open_project.h"
#include "app/base/remembered.h"
#include "app/base/snapshot.h"
#include "app/base/text_document.h"
#include "app/base/theme.h"
#include "app/sheet/sheet_output.h"
#include "app/window/main_window.h"
#include "app/window/project_files.h"
#include "app/window/script.h"
#include "core/derive/derived.h"
#include "core/derive/evaluation.h"
#include "core/format/output.h"
#include "core/format/project_file.h"
#include "core/objects/sheet.h"

namespace {

using namespace erdwerk;

int fail(const QString& text) {
    std::fprintf(stderr, "erdwerk: %s\n", qPrintable(text));
    return 2;
}

/// What a sheet shows, and how many of its texts lie on each other.
QJsonObject sheetJson(const app::Snapshot& snapshot, ObjectId id, const QString& file) {
    const auto& document = snapshot.derived.document;
    const auto& sheet = *document.get<objects::Sheet>(id);
    QJsonArray frames;
    for (const auto& frame : sheet.frames)
        if (const auto scale = objects::scaleOf(frame.content))
            frames.append(QJsonObject{
                {QStringLiteral("kind"), QString::fromUtf8(objects::frameKind(frame.content).id.data())},
                {QStringLiteral("scale"), *scale}});
    const auto texts = app::textsOn(snapshot, id);
    for (const QString& font : texts.noFonts)
        std::fprintf(stderr, "erdwerk: %s: the font '%s' is not installed; Inter stands in for it\n",
                     document.nameOf(id).c_str(), qPrintable(font));
    return {{QStringLiteral("name"), QString::fromStdString(document.nameOf(id))},
            {QStringLiteral("file"), file},
            {QStringLiteral("frames"), frames},
            {QStringLiteral("overlaps"), static_cast<qint64>(texts.overlaps)},
            {QStringLiteral("leftOut"), static_cast<qint64>(texts.leftOut)}};
}

int writeSheets(const QString& project, const QStringList& names, const QString& output) {
    const auto opened = format::openProject(project.toStdString());
    if (!opened) return fail(QString::fromStdString(opened.error().message()));
    auto derived = derive::evaluate(opened->document);
    if (!derived) return fail(QString::fromStdString(derived.error().message()));
    app::Snapshot snapshot;
    snapshot.derived = std::move(*derived);
    std::vector<ObjectId> sheets;
    for (const QString& name : names) {
        if (name.isEmpty()) continue;
        const ObjectId id = snapshot.derived.document.byName<objects::Sheet>(name.toStdString());
        if (!id) return fail(project + QStringLiteral(": has no sheet named ") + name);
        sheets.push_back(id);
    }
    if (sheets.empty()) sheets = snapshot.derived.document.all<objects::Sheet>();
    if (sheets.empty()) return fail(project + QStringLiteral(": holds no sheet"));
    const auto done = app::writeSheets(output, snapshot, sheets);
    if (!done) return fail(QString::fromStdString(done.error().message()));
    QJsonArray all;
    for (std::size_t i = 0; i < sheets.size(); ++i)
        all.append(sheetJson(snapshot, sheets[i], (*done)[static_cast<qsizetype>(i)]));
    std::printf("%s\n", QJsonDocument(QJsonObject{{QStringLiteral("sheets"), all}})
                            .toJson(QJsonDocument::Indented)
                            .trimmed()
                            .constData());
    return 0;
}

int writeText(const QString& file, const QString& output) {
    const auto text = format::readFile(file.toStdString());
    if (!text) return fail(QString::fromStdString(text.error().message()));
    const auto done = app::writeTextDocument(output, QString::fromStdString(*text));
    return done ? 0 : fail(QString::fromStdString(done.error().message()));
}

/// What is to be shown, then the picture; 2 with a word when either cannot be.
int takePicture(app::MainWindow& window, const QString& show, const QString& file) {
    int result = 0;
    QTimer::singleShot(300, &window, [&] {
        const QString reason = app::showForPicture(window, show);
        result = reason.isEmpty() && window.grab().save(file)
                     ? 0
                     : fail(reason.isEmpty() ? QStringLiteral("the picture could not be written") : reason);
        // What a crash left in a named project's journal stays there.
        window.session().project().close(window.session().project().path().isEmpty());
        QApplication::exit(result);
    });
    QApplication::exec();
    return result;
}

}  // namespace

int main(int argc, char** argv) {
    // A sheet needs no display.
    for (int i = 1; i < argc; ++i)
        if (QByteArray(argv[i]) == "--sheet" || QByteArray(argv[i]) == "--text")
            qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("Erdwerk"));
    QApplication::setApplicationVersion(QStringLiteral("0.1.0"));
    app::theme::apply(application);
    QCommandLineParser parser;
    parser.setApplicationDescription(
        QStringLiteral("Terrain surfaces, 3D linework, alignments and parcels for civil site design."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("project"), QStringLiteral("A project to open."),
                                 QStringLiteral("[project]"));
    const QCommandLineOption demo(QStringLiteral("demo"), QStringLiteral("Open the demo project."));
    const QCommandLineOption screenshot(QStringLiteral("screenshot"),
                                        QStringLiteral("Take a picture of the window, then end."),
                                        QStringLiteral("file"));
    const QCommandLineOption show(
        QStringLiteral("show"),
        QStringLiteral(
            "Before the picture: what to show, e.g. stage=Shape,select=Dome Terrace,twin,page=Findings."),
        QStringLiteral("list"));
    const QCommandLineOption sheet(
        QStringLiteral("sheet"),
        QStringLiteral("Write a sheet of the project, several when it is given again; an empty name: all."),
        QStringLiteral("name"));
    const QCommandLineOption output(
        {QStringLiteral("o"), QStringLiteral("output")},
        QStringLiteral("With --sheet: .pdf or .svg to write; with --text: .odt or .pdf."),
        QStringLiteral("file"));
    const QCommandLineOption plainText(QStringLiteral("text"),
                                       QStringLiteral("Write a description in a text file as a document."),
                                       QStringLiteral("file"));
    parser.addOptions({demo, screenshot, show, sheet, plainText, output});
    parser.process(application);
    const QStringList files = parser.positionalArguments();
    if (parser.isSet(sheet)) {
        if (files.size() != 1 || !parser.isSet(output))
            return fail(QStringLiteral("--sheet NAME PROJECT -o FILE"));
        return writeSheets(files.front(), parser.values(sheet), parser.value(output));
    }
    if (parser.isSet(plainText)) return writeText(parser.value(plainText), parser.value(output));
    // Pictures look the same whatever was left of the last run.
    if (parser.isSet(screenshot)) app::remembered::turnOff();
    app::MainWindow window;
    window.show();
    if (parser.isSet(demo) &&
        !(parser.isSet(screenshot) ? window.files().openDemo() : window.files().showDemo()))
        return 2;
    if (!files.isEmpty() && !window.files().openProject(files.front())) return 2;
    if (parser.isSet(screenshot)) return takePicture(window, parser.value(show), parser.value(screenshot));
    return QApplication::exec();
}
