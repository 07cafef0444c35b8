#include "app/window/recovery_dialog.h"

#include <QDateTime>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>

#include "app/base/theme.h"

namespace erdwerk::app {

QString recoveryText(const format::Recovery& recovery) {
    QString out;
    const auto back = recovery.what.size();
    if (back == 1)
        out = QObject::tr("One unsaved change was brought back: \"%1\". Undo takes it back.")
                  .arg(QString::fromStdString(recovery.what.back()));
    if (back > 1)
        out =
            QObject::tr(
                "%1 unsaved changes were brought back; the last was \"%2\". Undo takes them back one by one.")
                .arg(QString::number(back), QString::fromStdString(recovery.what.back()));
    if (recovery.problem.empty()) return out;
    const auto lost = std::count_if(recovery.entries.begin(), recovery.entries.end(),
                                    [](const auto& e) { return !e.broughtBack; });
    if (!out.isEmpty()) out += QLatin1Char(' ');
    out += lost == 0 ? QObject::tr("The journal beside the project could not be used")
                     : (lost == 1 ? QObject::tr("One line of the journal was not brought back")
                                  : QObject::tr("%1 lines of the journal were not brought back").arg(lost));
    out += QObject::tr(" (%1).").arg(QString::fromStdString(recovery.problem));
    if (!recovery.keptAs.empty())
        out += QObject::tr(" It is kept as %1.").arg(QString::fromStdString(recovery.keptAs));
    return out;
}

RecoveryDialog::RecoveryDialog(const format::Recovery& recovery, QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("recovery"));
    setWindowTitle(tr("What was found beside the project"));
    resize(640, 360);
    auto* layout = new QVBoxLayout(this);
    auto* text = new QLabel(recoveryText(recovery));
    text->setWordWrap(true);
    text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(text);
    list_ = new QTreeWidget;
    list_->setObjectName(QStringLiteral("journalLines"));
    list_->setAccessibleName(tr("Lines of the journal"));
    list_->setRootIsDecorated(false);
    list_->setHeaderLabels({tr("When"), tr("What was done"), tr("Brought back")});
    list_->header()->setStretchLastSection(false);
    list_->header()->setSectionResizeMode(1, QHeaderView::Stretch);
    list_->setColumnWidth(0, 130);
    list_->setColumnWidth(2, 230);
    for (const auto& e : recovery.entries) {
        const auto when = QDateTime::fromString(QString::fromStdString(e.when), Qt::ISODate).toLocalTime();
        auto* item = new QTreeWidgetItem(
            list_, {when.isValid() ? when.toString(QStringLiteral("yyyy-MM-dd hh:mm")) : QString(),
                    e.what.empty() ? tr("cannot be read") : QString::fromStdString(e.what),
                    e.broughtBack ? tr("✓ yes") : tr("no: %1").arg(QString::fromStdString(e.reason))});
        if (!e.broughtBack) item->setForeground(2, theme::madder);
        item->setToolTip(2, item->text(2));
    }
    layout->addWidget(list_, 1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::accept);
    layout->addWidget(buttons);
}

}  // namespace erdwerk::app

#include "moc_recovery_dialog.cpp"
