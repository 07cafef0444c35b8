#include "app/window/extract_dialog.h"

#include <QFormLayout>
#include <QLabel>
#include <QPushButton>

#include "app/base/await_work.h"
#include "app/base/snapshot.h"
#include "app/kinds/current.h"
#include "app/plan/tool.h"
#include "core/operations/ground.h"

namespace erdwerk::app {

namespace {

/// The group last used for each kind, as long as the program runs.
QMap<int, QString>& rememberedGroups() {
    static QMap<int, QString> groups;
    return groups;
}

}  // namespace

ExtractDialog::ExtractDialog(Session& session, QWidget* parent) : QDialog(parent), session_(session) {
    setObjectName(QStringLiteral("extract"));
    setWindowTitle(tr("Parts of a surface as objects"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* form = new QFormLayout(this);
    surface_ = new QComboBox;
    surface_->setObjectName(QStringLiteral("extractSurface"));
    const ObjectId current = currentSurface(session_);
    for (const ObjectId id : session_.document().all<objects::Surface>()) {
        surface_->addItem(QString::fromStdString(session_.document().nameOf(id)),
                          QVariant::fromValue<qulonglong>(id.value));
        if (id == current) surface_->setCurrentIndex(surface_->count() - 1);
    }
    kind_ = new QComboBox;
    kind_->setObjectName(QStringLiteral("extractKind"));
    kind_->addItems({tr("contours"), tr("triangles"), tr("edge"), tr("points"), tr("slope arrows")});
    index_ = new QCheckBox(tr("index contours only"));
    from_ = new QLineEdit;
    to_ = new QLineEdit;
    for (auto* edit : {from_, to_}) edit->setPlaceholderText(tr("any height"));
    group_ = new QComboBox;
    group_->setEditable(true);
    group_->setMinimumWidth(220);
    result_ = new QLabel(tr("The surface stays and is shown as before."));
    result_->setWordWrap(true);
    auto* make = new QPushButton(tr("Make objects"));
    make->setObjectName(QStringLiteral("extractMake"));
    make->setDefault(true);
    form->addRow(tr("Surface"), surface_);
    form->addRow(tr("What"), kind_);
    form->addRow(QString(), index_);
    form->addRow(tr("From height"), from_);
    form->addRow(tr("To height"), to_);
    form->addRow(tr("Into group"), group_);
    form->addRow(result_);
    form->addRow(QString(), make);
    connect(kind_, &QComboBox::activated, this, &ExtractDialog::showKind);
    connect(surface_, &QComboBox::activated, this, &ExtractDialog::showKind);
    connect(make, &QPushButton::clicked, this, &ExtractDialog::extract);
    showKind();
}

operations::Extract ExtractDialog::kind() const {
    return operations::allExtracts[static_cast<std::size_t>(kind_->currentIndex())];
}

void ExtractDialog::showKind() {
    const bool contours = kind() == operations::Extract::Contours;
    for (QWidget* w : std::initializer_list<QWidget*>{index_, from_, to_}) w->setEnabled(contours);
    group_->clear();
    QString name = kind_->currentText() + tr(" of ") + surface_->currentText();
    if (!name.isEmpty()) name[0] = name[0].toUpper();
    group_->addItem(rememberedGroups().value(kind_->currentIndex(), name));
    for (const ObjectId id : session_.document().all<objects::Group>())
        group_->addItem(QString::fromStdString(session_.document().nameOf(id)));
}

void ExtractDialog::extract() {
    operations::ExtractOptions options;
    options.what = kind();
    options.group = group_->currentText().trimmed().toStdString();
    options.indexOnly = index_->isChecked();
    for (const auto& [edit, value] : {std::pair{from_, &options.lowest}, std::pair{to_, &options.highest}}) {
        const QString text = edit->text().trimmed();
        if (text.isEmpty()) continue;
        const auto number = typedFigure(text);
        if (!number) return result_->setText(tr("⚠ '%1' is not a height").arg(text));
        *value = *number;
    }
    const ObjectId surface{surface_->currentData().toULongLong()};
    auto parts = awaitWork([&, snapshot = session_.snapshot()] {
        return operations::partsOf(snapshot->derived, surface, options);
    });
    if (!parts) return result_->setText(tr("⚠ %1").arg(QString::fromStdString(parts.error().text)));
    rememberedGroups()[kind_->currentIndex()] = group_->currentText();
    const QString text =
        tr("✓ %1 objects in group %2").arg(parts->objects.size()).arg(QString::fromStdString(parts->group));
    // What was taken on a worker goes into the project as it is by now.
    if (session_.edit(tr("Take %1 from a surface").arg(kind_->currentText()),
                      operations::addParts(std::move(*parts))))
        result_->setText(text);
}

}  // namespace erdwerk::app

#include "moc_extract_dialog.cpp"
