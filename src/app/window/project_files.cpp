#include "app/window/project_files.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QMessageBox>
#include "app/base/open_project.h"

#include "app/base/file_dialog.h"
#include "app/base/remembered.h"
#include "app/bench/bench.h"
#include "app/window/keeping_bar.h"
#include "app/window/recovery_dialog.h"
#include "app/window/stage_bar.h"
#include "app/window/start_page.h"
#include "app/window/tool_in_hand.h"
#include "app/window/twin_views.h"
#include "app/window/workbench.h"
#include "core/format/keeper.h"
#include "core/objects/line.h"

namespace erdwerk::app {

QString demoFolder() {
    QDir folder(QCoreApplication::applicationDirPath());
    if (folder.exists(QStringLiteral("../share/erdwerk/demo")))
        return folder.filePath(QStringLiteral("../share/erdwerk/demo"));
    do {
        if (folder.exists(QStringLiteral("data/demo/quillmoor.erdwerk")))
            return folder.filePath(QStringLiteral("data/demo"));
    } while (folder.cdUp());
    return {};
}

ProjectFiles::ProjectFiles(Workbench& work, ToolInHand& inHand)
    : work_(work), session_(work.session), inHand_(inHand) {
    connectStart();
    connectKeeping();
}

bool ProjectFiles::openProject(const QString& path) {
    const auto opened = session_.project().open(path);
    if (!opened) {
        QMessageBox::warning(work_.window, tr("Not opened"),
                             QString::fromStdString(opened.error().message()));
        return false;
    }
    remembered::addRecentProject(path);
    const auto& recovery = session_.project().recovery();
    if (session_.project().isReadOnly())
        return true;  // what was brought back belongs to the one who has it open
    if (recovery.problem.empty()) {
        if (const QString recovered = recoveryText(recovery); !recovered.isEmpty())
            work_.say(recovered, false);
    } else {
        work_.say(tr("%1 of %2 unsaved changes were brought back; the rest is kept, see the list")
                      .arg(recovery.what.size())
                      .arg(recovery.entries.size()),
                  true);
        showRecovery();
    }
    return true;
}

void ProjectFiles::showRecovery() {
    auto* dialog = new RecoveryDialog(session_.project().recovery(), work_.window);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->show();
}

bool ProjectFiles::openDemo() {
    const QString folder = demoFolder();
    const auto done = session_.project().openCopy(folder + QStringLiteral("/quillmoor.erdwerk"));
    if (!done)
        QMessageBox::warning(work_.window, tr("Not opened"), QString::fromStdString(done.error().message()));
    return done.has_value();
}

bool ProjectFiles::showDemo() {
    if (!openDemo()) return false;
    work_.stageBar->setStage(Stage::Ground);
    work_.views->setTwin(TwinViews::Twin::Scene);
    const auto& d = session_.document();
    if (const ObjectId ditch = d.byName<objects::Line>("Peat ditch"))
        session_.selection().set({{ditch, std::nullopt}});
    work_.bench->open(Bench::Page::Grades);
    return true;
}

bool ProjectFiles::askToSave() {
    inHand_.end();
    if (!session_.isOpen() || !session_.project().isChanged() || session_.project().isSaving()) return true;
    const auto answer =
        QMessageBox::question(work_.window, tr("Save changes?"),
                              tr("%1 has changes that are not saved.")
                                  .arg(QString::fromStdString(session_.document().settings().name)),
                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel);
    if (answer == QMessageBox::Save) return save(false);
    return answer == QMessageBox::Discard;
}

QString ProjectFiles::pathToSave(bool askName) {
    QString path = session_.project().path();
    if (path.isEmpty() || askName || session_.project().isReadOnly())
        path = fileToWrite(work_.window, tr("Save the project"), path, tr("Erdwerk projects (*.erdwerk)"));
    if (!path.isEmpty() && !path.endsWith(QStringLiteral(".erdwerk"))) path += QStringLiteral(".erdwerk");
    return path;
}

void ProjectFiles::startSaving(bool askName) {
    if (const QString path = pathToSave(askName); !path.isEmpty()) session_.project().save(path);
}

bool ProjectFiles::save(bool askName) {
    const QString path = pathToSave(askName);
    if (path.isEmpty()) return false;
    const auto done = session_.project().saveAndWait(path);
    if (!done)
        QMessageBox::warning(work_.window, tr("Not saved"), QString::fromStdString(done.error().message()));
    return done.has_value();
}

void ProjectFiles::connectStart() {
    connect(work_.start, &StartPage::demoPressed, this, &ProjectFiles::showDemo);
    connect(work_.start, &StartPage::openPressed, this,
            [this] { work_.actions.run(QStringLiteral("open")); });
    connect(work_.start, &StartPage::emptyPressed, this, [this] { session_.project().startNew({}); });
    connect(work_.start, &StartPage::recentPressed, this, [this](const QString& path) { openProject(path); });
    connect(work_.start, &StartPage::newFromSurveyPressed, this,
            [this] { work_.actions.run(QStringLiteral("new-from-survey")); });
    connect(work_.start, &StartPage::recoverPressed, this, [this](const QString& base) {
        if (auto done = session_.project().recoverLost(base); !done)
            QMessageBox::warning(work_.window, tr("Not recovered"),
                                 QString::fromStdString(done.error().message()));
        else if (!session_.project().recovery().problem.empty())
            showRecovery();
    });
}

void ProjectFiles::connectKeeping() {
    connect(&session_.project(), &OpenProject::saved, this, [this](const QString& path) {
        remembered::addRecentProject(path);
        work_.start->setRecent(remembered::recentProjects());
        work_.say(tr("Saved to %1").arg(QFileInfo(path).fileName()), false);
    });
    connect(work_.keeping, &KeepingBar::saveElsewherePressed, this, [this] { startSaving(true); });
    connect(work_.keeping, &KeepingBar::copyPressed, this, [this] { session_.project().workOnCopy(); });
    connect(work_.keeping, &KeepingBar::takeOverPressed, this,
            [this] { openProject(session_.project().path()); });
}

}  // namespace erdwerk::app

#include "moc_project_files.cpp"
