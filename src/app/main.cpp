// erdwerk [PROJECT]                 opens the window
// erdwerk --demo                    with the demo
// erdwerk --screenshot FILE …       takes a picture when everything is drawn, and ends
// erdwerk --sheet NAME PROJECT -o OUT   writes a plan sheet without a window

#include <QApplication>
#include <QCommandLineParser>
#include <QTimer>
#include <cstdio>

#include "app/base/remembered.h"
#include "app/base/theme.h"
#include "app/sheet/sheet_painter.h"
#include "app/window/main_window.h"
#include "app/window/script.h"
#include "core/format/project_file.h"

namespace {

using namespace erdwerk;

int fail(const QString& text) {
    std::fprintf(stderr, "erdwerk: %s\n", qPrintable(text));
    return 2;
}

int writeSheet(const QString& project, const QString& name, const QString& output) {
    const auto opened = format::openProject(project.toStdString());
    if (!opened) return fail(QString::fromStdString(opened.error().message()));
    auto derived = derive::evaluate(opened->document);
    if (!derived) return fail(QString::fromStdString(derived.error().message()));
    app::Snapshot snapshot;
    snapshot.derived = std::move(*derived);
    const auto sheets = snapshot.derived.document.all<objects::Sheet>();
    const ObjectId id = name.isEmpty() && !sheets.empty()
                            ? sheets.front()
                            : snapshot.derived.document.byName<objects::Sheet>(name.toStdString());
    if (!id)
        return fail(project + (name.isEmpty() ? QStringLiteral(": holds no sheet")
                                              : QStringLiteral(": has no sheet named ") + name));
    const auto done = app::writeSheet(output, snapshot, id);
    if (!done) return fail(QString::fromStdString(done.error().message()));
    std::printf("{\"sheets\": 1}\n");
    return 0;
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
        window.session().close(window.session().path().isEmpty());
        QApplication::exit(result);
    });
    QApplication::exec();
    return result;
}

}  // namespace

int main(int argc, char** argv) {
    // A sheet needs no display.
    for (int i = 1; i < argc; ++i)
        if (QByteArray(argv[i]) == "--sheet") qputenv("QT_QPA_PLATFORM", "offscreen");
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
        QStringLiteral("Write a plan sheet of the project; an empty name takes the first."),
        QStringLiteral("name"));
    const QCommandLineOption output({QStringLiteral("o"), QStringLiteral("output")},
                                    QStringLiteral("With --sheet: .pdf or .svg to write."),
                                    QStringLiteral("file"));
    parser.addOptions({demo, screenshot, show, sheet, output});
    parser.process(application);
    const QStringList files = parser.positionalArguments();
    if (parser.isSet(sheet)) {
        if (files.size() != 1 || !parser.isSet(output))
            return fail(QStringLiteral("--sheet NAME PROJECT -o FILE"));
        return writeSheet(files.front(), parser.value(sheet), parser.value(output));
    }
    // Pictures look the same whatever was left of the last run.
    if (parser.isSet(screenshot)) app::remembered::turnOff();
    app::MainWindow window;
    window.show();
    if (parser.isSet(demo) && !(parser.isSet(screenshot) ? window.openDemo() : window.showDemo())) return 2;
    if (!files.isEmpty() && !window.openProject(files.front())) return 2;
    if (parser.isSet(screenshot)) return takePicture(window, parser.value(show), parser.value(screenshot));
    return QApplication::exec();
}
