// What the screens of people say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// AccountScreen.tsx
export const yourAccount = "Your account";
export const fetching = "Fetching…";
export const whoYouAre = "Who you are";
export const yourPassword = "Your password";
export const whereYouAreSignedIn = "Where you are signed in";
export const secondFactor = "Second factor";
export const saved = "Saved";
export const save = "Save";
export const name = "Name";
export const whatYouDoIsToldByIt = "What you do is told by it.";
export const mailAddress = "Mail address";
export const thePasswordThatYouHave = "The password that you have";
export const youSignInWithTheAddressIt =
  "You sign in with the address: it is asked whether it is really you.";
export const yourPasswordIsChanged = "Your password is changed.";
export const oneOtherSessionHas = "one other session has";
export const otherSessionsHave = (ended: Value) => `${ended} other sessions have`;
export const yourPasswordIsChangedEnded = (word: Value) => `Your password is changed; ${word} ended.`;
export const changeIt = "Change it";
export const theNewOne = "The new one";
export const severalWordsThatNobodyWouldExpect =
  "Several words that nobody would expect together are hard to guess. Everywhere else you are signed out.";

// Everybody.tsx
export const canSignInAgain = (name: Value) => `${name} can sign in again.`;
export const isSignedOutEverywhereAndCanNo = (name: Value) =>
  `${name} is signed out everywhere and can no longer sign in.`;
export const onEverySite = "On every site";
export const whatMayDoOnEverySite = (name: Value) => `What ${name} may do on every site`;
export const nothing = "nothing";
export const onSingleSites = "On single sites";
export const ofWord = (role: Value, site: Value) => `${role} of ${site}`;
export const whatCanBeDone = "What can be done";
export const newLink = "New link";
export const newPassword = "New password";
export const forWord = (name: Value) => `for ${name}`;
export const endSecondFactor = "End second factor";
export const ofWord2 = (name: Value) => `of ${name}`;
export const reactivate = "Reactivate";
export const deactivate = "Deactivate";
export const withThisLinkChoosesAPasswordHand = (name: Value) =>
  `With this link ${name} chooses a password; hand it to them.`;
export const everybody = "Everybody";

// ForgottenPassword.tsx
export const thePasswordIsLost = "The password is lost";
export const ifSomebodyHereHasTheAddressA = (askedFor: Value) =>
  `If somebody here has the address ${askedFor}, a mail with a link is on its way.`;
export const aNewPassword = "A new password";
export const yourMailAddress = "Your mail address";
export const sendMeALink = "Send me a link";

// HandedLink.tsx
export const itIsShownThisOnceItCan = (words: Value, expiresAt: Value) =>
  `${words} It is shown this once; it can be used until ${expiresAt}.`;
export const copy = "Copy";

// InviteForm.tsx
export const canSignInToNow = (name: Value, name2: Value) => `${name} can sign in to ${name2} now.`;
export const inviteSomebody = "Invite somebody";
export const nameOfSomebodyNew = "Name, of somebody new";
export const as = "As";
export const into = "Into";
export const everySite = "every site";
export const byMail = "by mail";
export const invite = "Invite";
export const aMailWithTheLinkIsOn = (name: Value) => `A mail with the link is on its way to ${name}.`;
export const theMailCouldNotBeSent = "The mail could not be sent. ";
export const theLinkWithWhichSignsInHand = (word: Value, name: Value) =>
  `${word}The link with which ${name} signs in; hand it to them.`;

// Members.tsx
export const mayDoHere = "May do here";
export const whatMayDoHere = (name: Value) => `What ${name} may do here`;
export const onEverySite2 = (everywhere: Value) => `${everywhere} on every site`;
export const remove = "Remove";
export const whatMayDoHere2 = (name: Value) => `what ${name} may do here`;
export const aReaderLooksAnEditorWritesLinks =
  "A reader looks; an editor writes, links and makes routes; an owner changes the site and who can sign in.";
export const whoCanSignInTo = (name: Value) => `Who can sign in to ${name}`;

// SecondFactor.tsx
export const codeIs = "code is";
export const codesAre = "codes are";
export const inUseSinceRecoveryLeft = (since: Value, recoveryLeft: Value, word: Value) =>
  `In use since ${since}. ${recoveryLeft} recovery ${word} left.`;
export const newRecoveryCodes = "New recovery codes";
export const makeNewOnes = "Make new ones";
export const withoutItAgain = "Without it again";
export const removeIt = "Remove it";
export const youSignInWithYourPasswordAlone = "You sign in with your password alone again.";
export const besideYourPasswordSigningInAsksFor =
  "Beside your password, signing in asks for a code that an app on your phone shows: a password that got about is of no use by itself.";
export const setUpASecondFactor = "Set up a second factor";
export const setItUp = "Set it up";
export const thePasswordThatYouHave2 = (label: Value) => `${label}: the password that you have`;
export const qrCodeForAnAppThatShows = "QR code for an app that shows one-time codes";
export const confirmTheSecondFactor = "Confirm the second factor";
export const letYourAppReadThePictureOr = "Let your app read the picture, or type this into it:";
export const theCodeThatItShows = "The code that it shows";
export const fromNowOnWithIt = "From now on with it";
export const shouldYourPhoneBeLostEachOf =
  "Should your phone be lost, each of these lets you in once. They are shown this once: print them, or keep them where you keep passwords.";
export const copyThem = "Copy them";

// SecondFactorRule.tsx
export const everybodySignsInWithASecondFactor =
  "Everybody signs in with a second factor; whoever has none sets one up before anything else.";

// Sessions.tsx
export const browser = "Browser";
export const thisOne = "this one";
export const from = "From";
export const lastUsed = "Last used";
export const signedIn = "Signed in";
export const end = "End";
export const theSessionIn = (agent: Value) => `the session in ${agent}`;
export const aSessionEndsAfterDaysWithoutBeing = (sESSIONIDLEDAYS: Value, sESSIONDAYS: Value) =>
  `A session ends after ${sESSIONIDLEDAYS} days without being used, and after ${sESSIONDAYS} in any case.`;
export const sessions = "Sessions";
export const endAllOthers = "End all others";

// SignIn.tsx
export const mapRope = "Map Rope";
export const everyWayOutOfYourSiteMade = "Every way out of your site, made, marked and watched.";
export const signingIn = "Signing in…";
export const signIn = "Sign in";

// Welcome.tsx
export const comeIn = "Come in";
export const chooseAPassword = "Choose a password";
export const saveAndSignIn = "Save and sign in";
export const youSignInWith = "You sign in with";
export const whereverYouAreSignedInYouAre = " Wherever you are signed in, you are signed out.";
export const yourName = "Your name";
export const severalWordsThatNobodyWouldExpect2 =
  "Several words that nobody would expect together are hard to guess.";

// seen-column.ts
export const lastHere = "Last here";
export const notSignedIn = "not signed in";

// In the tab of the browser
export const titleAccount = "Your account";
export const titlePeople = "People";
export const titleWelcome = "Choose a password";
export const titleSignIn = "Sign in";
