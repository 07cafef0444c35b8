#include "app/window/sheets_along_dialog.h"

#include <QDate>
#include <QFormLayout>
#include <QPushButton>

#include "core/base/notation.h"
#include "core/objects/profile.h"

namespace erdwerk::app {

namespace {

QComboBox* choiceOf(const Session& session, const std::vector<ObjectId>& ids, ObjectId current,
                    const QString& none) {
    auto* box = new QComboBox;
    if (!none.isEmpty()) box->addItem(none, QVariant::fromValue<qulonglong>(0));
    for (const ObjectId id : ids) {
        box->addItem(QString::fromStdString(session.document().nameOf(id)),
                     QVariant::fromValue<qulonglong>(id.value));
        if (id == current) box->setCurrentIndex(box->count() - 1);
    }
    return box;
}

ObjectId chosen(const QComboBox& box) {
    return {box.currentData().toULongLong()};
}

}  // namespace

SheetsAlongDialog::SheetsAlongDialog(Session& session, ObjectId alignment, QWidget* parent)
    : QDialog(parent), session_(session) {
    setObjectName(QStringLiteral("sheetsAlong"));
    setWindowTitle(tr("Sheets along an alignment"));
    setAttribute(Qt::WA_DeleteOnClose);
    auto* form = new QFormLayout(this);
    alignment_ = choiceOf(session, session.document().all<objects::Alignment>(), alignment, {});
    ObjectId profile;
    for (const ObjectId id : session.document().all<objects::Profile>())
        if (session.document().get<objects::Profile>(id)->alignment == chosen(*alignment_)) profile = id;
    profile_ =
        choiceOf(session, session.document().all<objects::Profile>(), profile, tr("none: the plan alone"));
    scale_ = new QLineEdit(QStringLiteral("500"));
    paper_ = new QComboBox;
    for (const auto& size : objects::paperSizes())
        paper_->addItem(QString::fromStdString(std::string(size.name)), QSizeF(size.width, size.height));
    paper_->setCurrentIndex(1);
    result_ = new QLabel;
    result_->setWordWrap(true);
    result_->setMinimumWidth(300);
    result_->setObjectName(QStringLiteral("sheetsAlongResult"));
    make_ = new QPushButton(tr("Make them"));
    make_->setObjectName(QStringLiteral("makeSheets"));
    make_->setDefault(true);
    form->addRow(tr("Alignment"), alignment_);
    form->addRow(tr("Profile below"), profile_);
    form->addRow(tr("Scale 1 :"), scale_);
    form->addRow(tr("Paper"), paper_);
    form->addRow(result_);
    form->addRow(make_);
    for (QComboBox* box : {alignment_, profile_, paper_})
        connect(box, &QComboBox::currentIndexChanged, this, &SheetsAlongDialog::tell);
    connect(scale_, &QLineEdit::textChanged, this, &SheetsAlongDialog::tell);
    connect(&session_, &Session::resultsChanged, this, &SheetsAlongDialog::tell);
    connect(make_, &QPushButton::clicked, this, &SheetsAlongDialog::make);
    connect(&session_, &Session::opened, this, &QDialog::close);
    tell();
}

operations::SheetsAlong SheetsAlongDialog::options() const {
    const QSizeF size = paper_->currentData().toSizeF();
    return {chosen(*alignment_),
            chosen(*profile_),
            parseNumber(scale_->text().trimmed().toStdString()).value_or(0),
            {size.width(), size.height()},
            QDate::currentDate().toString(Qt::ISODate).toStdString()};
}

void SheetsAlongDialog::tell() {
    const auto& document = session_.derived().document;
    const auto before = document.all<objects::Sheet>().size();
    const auto done = operations::sheetsAlong(session_.results(), options())(document);
    make_->setEnabled(done.has_value());
    result_->setText(done ? tr("Makes %n sheets, with match lines between them.", nullptr,
                               static_cast<int>(done->document.all<objects::Sheet>().size() - before))
                          : QString::fromStdString(done.error().message()));
}

void SheetsAlongDialog::make() {
    const auto sheets = session_.edit(tr("Make sheets along an alignment"),
                                      operations::sheetsAlong(session_.results(), options()));
    if (!sheets) return;
    if (!sheets.made.empty()) session_.selection().set({{sheets.made.front(), std::nullopt}});
    Q_EMIT this->made();
    close();
}

}  // namespace erdwerk::app

#include "moc_sheets_along_dialog.cpp"
