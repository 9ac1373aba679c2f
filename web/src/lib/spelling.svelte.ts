// How words are spelled: as in the US where the job is in feet, as in Britain
// where it is in metres. The build puts both spellings where they differ.
class Spelling {
  british = $state(false)
}
export const spelling = new Spelling()
