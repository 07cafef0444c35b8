// What the menus of the page Profile do.

#include <QInputDialog>
#include <QMenu>

#include "app/bench/profile_page.h"
#include "app/kinds/profile_section.h"
#include "core/base/notation.h"
#include "core/objects/profile.h"
#include "core/operations/derived_lines.h"
#include "core/operations/records.h"

namespace erdwerk::app {

void ProfilePage::fillMenus() {
    rows_->menu()->clear();
    more_->menu()->clear();
    const auto* p = profile();
    if (p == nullptr) return;
    fillRows(*p);
    fillMore(*p);
}

void ProfilePage::fillRows(const objects::Profile& p) {
    for (int i = 0; i < route::profileRowCount; ++i) {
        const auto row = static_cast<route::ProfileRow>(i);
        auto* item = rows_->menu()->addAction(rowText(row));
        item->setCheckable(true);
        item->setChecked(std::find(p.rows.begin(), p.rows.end(), row) != p.rows.end());
        connect(item, &QAction::triggered, this, [this, row](bool on) {
            change(tr("Choose rows of a profile"), [row, on](objects::Profile& x) {
                std::erase(x.rows, row);
                if (on) x.rows.push_back(row);
                std::sort(x.rows.begin(), x.rows.end());
            });
        });
    }
}

void ProfilePage::fillMore(const objects::Profile& p) {
    auto* menu = more_->menu();
    const int row = table_->currentRow();
    const auto design = static_cast<int>(p.design.size());
    if (row >= 0 && row < design)
        connect(menu->addAction(tr("Remove PVI %1").arg(row + 1)), &QAction::triggered, this,
                &ProfilePage::removePvi, Qt::QueuedConnection);
    const auto edit = [this](const QString& what, const document::Edit& does) {
        QMetaObject::invokeMethod(
            this, [this, what, does] { session_.edit(what, does); }, Qt::QueuedConnection);
    };
    if (row > 0 && row < design) {
        const auto at = static_cast<std::size_t>(row);
        const bool locked = p.design[at - 1].locked;
        auto* lock = menu->addAction(locked ? tr("Free the grade before PVI %1").arg(row + 1)
                                            : tr("Lock the grade before PVI %1").arg(row + 1));
        connect(lock, &QAction::triggered, this, [this, edit, at, locked] {
            edit(locked ? tr("Free a grade") : tr("Lock a grade"),
                 operations::lockGrade(*profile_, at - 1, !locked));
        });
        auto* ground = menu->addAction(tr("Follow the ground before PVI %1").arg(row + 1));
        connect(ground, &QAction::triggered, this, [this, edit, at] {
            edit(tr("Follow the ground"),
                 operations::typePvi(*profile_, at, operations::PviFigure::GradeIn, "="));
        });
        if (row + 1 < design) {
            auto* carry = menu->addAction(tr("Carry the grade on behind PVI %1").arg(row + 1));
            connect(carry, &QAction::triggered, this, [this, edit, at] {
                edit(tr("Carry a grade on"), operations::carryGradeOn(*profile_, at));
            });
        }
        menu->addSeparator();
    }
    auto* line = menu->addAction(tr("3D line of the design"));
    connect(line, &QAction::triggered, this, [this, edit] {
        edit(tr("3D line of the design"), operations::lineOfDesign(session_.results(), *profile_, "0", true));
    });
    auto* beside = menu->addAction(tr("3D lines beside the design…"));
    connect(beside, &QAction::triggered, this, &ProfilePage::askLines);
    for (auto* item : {line, beside}) item->setEnabled(design > 1);
    menu->addSeparator();
    connect(menu->addAction(tr("Ground from the selected lines")), &QAction::triggered, this,
            &ProfilePage::groundFromSelection);
    connect(menu->addAction(p.scale > 0 ? tr("Scale 1 : %1…").arg(p.scale) : tr("Scale: fits…")),
            &QAction::triggered, this, &ProfilePage::askScale);
    menu->addSeparator();
    connect(menu->addAction(tr("As drawing…")), &QAction::triggered, this, &ProfilePage::drawingPressed);
    connect(menu->addAction(tr("Table…")), &QAction::triggered, this, &ProfilePage::tablePressed);
}

void ProfilePage::askScale() {
    const auto* p = profile();
    if (p == nullptr) return;
    auto* dialog = new QInputDialog(this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(tr("Scale of the profile"));
    dialog->setLabelText(tr("1 : … along; 0 shows all of it"));
    dialog->setTextValue(QString::number(p->scale));
    connect(dialog, &QInputDialog::textValueSelected, this, [this](const QString& typed) {
        const auto scale = parseNumber(trimmed(typed.toStdString()));
        if (!scale || *scale < 0 || (*scale > 0 && *scale < 1))
            return Q_EMIT session_.message(tr("'%1' is no scale: 500, or 0 for all of it").arg(typed), true);
        if (profile_)
            change(tr("Set the scale of a profile"), [s = *scale](objects::Profile& x) { x.scale = s; });
    });
    dialog->open();
}

void ProfilePage::askLines() {
    if (!profile_) return;
    auto* dialog = new QInputDialog(this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setWindowTitle(tr("3D lines beside the design"));
    dialog->setLabelText(tr("Distance and crossfall, to both sides:\n3,-2.5% or 2.5@0 3.5@40,-2.5%"));
    dialog->setTextValue(QStringLiteral("3,-2.5%"));
    connect(dialog, &QInputDialog::textValueSelected, this, [this](const QString& typed) {
        if (profile_)
            session_.edit(tr("3D lines beside the design"),
                          operations::linesBesideDesign(session_.results(), *profile_, typed.toStdString()));
    });
    dialog->open();
}

void ProfilePage::groundFromSelection() {
    std::vector<ObjectId> lines;
    for (const Ref& ref : session_.selection())
        if (session_.document().get<objects::Line>(ref.object) != nullptr) lines.push_back(ref.object);
    if (!profile_) return;
    const auto* p = session_.document().get<objects::Profile>(*profile_);
    if (lines.empty() && (p == nullptr || p->across.empty()))
        return Q_EMIT session_.message(tr("Select the lines that cross the alignment first"), true);
    change(lines.empty() ? tr("Ground from the surface again") : tr("Ground from lines"),
           [lines](objects::Profile& x) { x.across = lines; });
}

}  // namespace erdwerk::app
